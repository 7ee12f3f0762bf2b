package ironing.server.update;

import ironing.core.deploy.Drift.Own;
import ironing.core.game.GameFolder.Packed;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The files of the unmodded game, as they are and as they were. */
@Mapper
interface UpdateMapper {
  /**
   * @param until when the next one was taken in, RFC 3339
   */
  record EarlierRow(long id, String version, String until, int changed, int added, int gone) {}

  /** A file in a pack of the game. */
  record PackedRow(String path, String sha256) {}

  @Select(
      """
      select path, size_bytes, modified_ms, sha256 from game_file
      where workspace_id = #{workspace} and pack = ''
      """)
  List<Own> loose(long workspace);

  @Select(
      """
      select path, sha256 from game_file where workspace_id = #{workspace} and pack = #{pack}
      """)
  List<PackedRow> packed(@Param("workspace") long workspace, @Param("pack") String pack);

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

  @Delete(
      """
      <script>delete from game_file where workspace_id = #{workspace} and
      <foreach collection='paths' item='p' open='(' close=')' separator=' or '>
      (pack = '' and path = #{p} or pack = #{p})</foreach></script>
      """)
  void forget(@Param("workspace") long workspace, @Param("paths") List<String> paths);

  @Insert(
      """
      <script>insert into game_file (workspace_id, pack, path, size_bytes, modified_ms, sha256)
      values <foreach collection='rows' item='r' separator=','>
      (#{workspace}, '', #{r.path}, #{r.sizeBytes}, #{r.modifiedMs}, #{r.sha256})</foreach>
      </script>
      """)
  void addLoose(@Param("workspace") long workspace, @Param("rows") List<Own> rows);

  @Insert(
      """
      <script>insert into game_file (workspace_id, pack, path, size_bytes, modified_ms, sha256)
      values <foreach collection='rows' item='r' separator=','>
      (#{workspace}, #{r.pack}, #{r.path}, #{r.sizeBytes}, 0, #{r.sha256})</foreach>
      on conflict do nothing</script>
      """)
  void addPacked(@Param("workspace") long workspace, @Param("rows") List<Packed> rows);

  @Update("update workspace set game_version = #{version} where id = #{workspace}")
  void setVersion(@Param("workspace") long workspace, @Param("version") String version);
}
