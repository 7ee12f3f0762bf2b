package ironing.server.workspace;

import ironing.core.drift.Drift.Own;
import ironing.core.game.GameFolder.Packed;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The rows of {@link GameFiles}. */
@Mapper
interface GameFileMapper {
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
  List<GameFiles.PackedRow> packed(@Param("workspace") long workspace, @Param("pack") String pack);

  /** Some thousands at once. */
  @Insert(
      """
      <script>insert into game_file (workspace_id, pack, path, size_bytes, modified_ms, sha256)
      values <foreach collection='rows' item='r' separator=','>
      (#{workspace}, '', #{r.path}, #{r.sizeBytes}, #{r.modifiedMs}, #{r.sha256})</foreach>
      </script>
      """)
  void addLoose(@Param("workspace") long workspace, @Param("rows") List<Own> rows);

  /** Some thousands at once; a pack may name a file twice. */
  @Insert(
      """
      <script>insert into game_file (workspace_id, pack, path, size_bytes, modified_ms, sha256)
      values <foreach collection='rows' item='r' separator=','>
      (#{workspace}, #{r.pack}, #{r.path}, #{r.sizeBytes}, 0, #{r.sha256})</foreach>
      on conflict do nothing</script>
      """)
  void addPacked(@Param("workspace") long workspace, @Param("rows") List<Packed> rows);

  /** Loose files, and packs with what is in them. */
  @Delete(
      """
      <script>delete from game_file where workspace_id = #{workspace} and
      <foreach collection='paths' item='p' open='(' close=')' separator=' or '>
      (pack = '' and path = #{p} or pack = #{p})</foreach></script>
      """)
  void forget(@Param("workspace") long workspace, @Param("paths") List<String> paths);

  @Delete(
      """
      delete from game_file where workspace_id = #{workspace}
        and (starts_with(path, #{prefix}) or starts_with(pack, #{prefix}))
      """)
  void forgetBelow(@Param("workspace") long workspace, @Param("prefix") String prefix);

  @Update(
      """
      update game_file set
        path = case when starts_with(path, '@') then '@' || path else path end,
        pack = case when starts_with(pack, '@') then '@' || pack else pack end
      where workspace_id = #{workspace} and (starts_with(path, '@') or starts_with(pack, '@'))
      """)
  void escape(long workspace);

  @Update(
      """
      update game_file set
        path = case when starts_with(path, '@@') then substr(path, 2) else path end,
        pack = case when starts_with(pack, '@@') then substr(pack, 2) else pack end
      where workspace_id = #{workspace} and (starts_with(path, '@@') or starts_with(pack, '@@'))
      """)
  void unescape(long workspace);

  @Delete("delete from game_file where workspace_id = #{workspace} and pack <> ''")
  void forgetPacked(long workspace);
}
