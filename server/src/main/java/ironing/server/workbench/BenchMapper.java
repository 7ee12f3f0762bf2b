package ironing.server.workbench;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What a bench is loaded from, and how an arrangement is written. */
@Mapper
interface BenchMapper {
  record WorkspaceRow(
      long id, String title, String gameFolder, String definition, String gameVersion) {}

  record ProfileRow(long id, String name, long revision) {}

  record ModRow(long id, String kind, String card, String archiveName) {}

  /** A file of the game (modId 0) or of a mod. */
  record FileRow(long modId, String pack, String path, long sizeBytes, String sha256) {}

  record LayerRow(long modId, boolean isOn) {}

  record WishRow(String name, boolean isOn) {}

  @Select("select id, title, game_folder, definition, game_version from workspace where id = #{id}")
  WorkspaceRow workspace(long id);

  @Select(
      "select id, name, revision from profile where workspace_id = #{workspace} order by id limit 1")
  ProfileRow profile(long workspace);

  @Select(
      "select m.id, m.kind, m.card, coalesce(a.name, '') as archive_name from mod m left join archive a on a.id = m.archive_id where m.workspace_id = #{workspace} order by m.id")
  List<ModRow> mods(long workspace);

  @Select(
      """
      select cast(0 as bigint) as mod_id, pack, path, size_bytes, sha256 from game_file where workspace_id = #{workspace}
      union all
      select f.mod_id, f.pack, f.path, f.size_bytes, f.sha256 from mod_file f join mod m on m.id = f.mod_id where m.workspace_id = #{workspace}
      order by 1, 2, 3
      """)
  List<FileRow> files(long workspace);

  @Select("select mod_id, is_on from layer where profile_id = #{profile} order by position")
  List<LayerRow> layers(long profile);

  @Select("select name, is_on from plugin_wish where profile_id = #{profile} order by position")
  List<WishRow> wishes(long profile);

  @Delete("delete from layer where profile_id = #{profile}")
  void clearLayers(long profile);

  @Insert(
      """
      <script>insert into layer (profile_id, mod_id, position, is_on) values
      <foreach collection='rows' item='r' index='i' separator=','>(#{profile}, #{r.modId}, #{from} + #{i}, #{r.isOn})</foreach></script>
      """)
  void addLayers(
      @Param("profile") long profile, @Param("from") int from, @Param("rows") List<LayerRow> rows);

  @Delete("delete from plugin_wish where profile_id = #{profile}")
  void clearWishes(long profile);

  @Insert(
      """
      <script>insert into plugin_wish (profile_id, position, name, is_on) values
      <foreach collection='rows' item='r' index='i' separator=','>(#{profile}, #{i} + 1, #{r.name}, #{r.isOn})</foreach></script>
      """)
  void addWishes(@Param("profile") long profile, @Param("rows") List<WishRow> rows);

  /** 1 when the profile was still at the revision that the caller saw, else 0. */
  @Update(
      "update profile set revision = revision + 1 where id = #{profile} and revision = #{revision}")
  int advance(@Param("profile") long profile, @Param("revision") long revision);

  @Insert(
      "insert into change (profile_id, said, arrangement, after) values (#{profile}, #{said}, #{before}, #{after})")
  void addChange(
      @Param("profile") long profile,
      @Param("said") String said,
      @Param("before") String before,
      @Param("after") String after);
}
