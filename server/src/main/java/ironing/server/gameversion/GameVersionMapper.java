package ironing.server.gameversion;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/**
 * The unmodded game as it was before its updates, and what taking one in changes beside its files.
 */
@Mapper
interface GameVersionMapper {
  /**
   * @param until when the next one was taken in, RFC 3339
   */
  record EarlierRow(long id, String version, String until, int changed, int added, int gone) {}

  @Select("select path from left_alone where workspace_id = #{workspace}")
  List<String> leftAlone(long workspace);

  @Select(
      """
      select id, version, to_char(until at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as until,
        changed, added, gone
      from earlier_game where workspace_id = #{workspace} order by id desc
      """)
  List<EarlierRow> earlier(long workspace);

  /** Keeps the game as it was until now. */
  @Select(
      """
      with kept as (
        insert into earlier_game (workspace_id, version, changed, added, gone)
        values (#{workspace}, #{version}, #{changed}, #{added}, #{gone}) returning id),
      files as (
        insert into earlier_game_file (earlier_id, pack, path, size_bytes, modified_ms, sha256)
        select kept.id, f.pack, f.path, f.size_bytes, f.modified_ms, f.sha256
        from kept, game_file f where f.workspace_id = #{workspace})
      select id from kept
      """)
  long keep(
      @Param("workspace") long workspace,
      @Param("version") String version,
      @Param("changed") int changed,
      @Param("added") int added,
      @Param("gone") int gone);

  /** A restore point in every profile, with its arrangement as it is. */
  @Insert(
      """
      insert into restore_point (profile_id, name, arrangement)
      select id, #{name}, arrangement from profile
      where workspace_id = #{workspace} and deleted_at is null
      """)
  void addPoints(@Param("workspace") long workspace, @Param("name") String name);

  @Update("update workspace set game_version = #{version} where id = #{workspace}")
  void setVersion(@Param("workspace") long workspace, @Param("version") String version);
}
