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

  record ModRow(
      long id, long strandId, String kind, String folder, String card, String archiveName) {}

  /** A file of the game (modId 0) or of a mod. */
  record FileRow(
      long modId, String pack, String path, long sizeBytes, String sha256, String stored) {}

  record LayerRow(long modId, boolean isOn) {}

  record WishRow(String name, boolean isOn) {}

  record DecisionRow(String recordKey, String place, String choice) {}

  record HeldBackRow(long modId, String path) {}

  record ChangeRow(long id, String said, String before, String after) {}

  @Select("select id from workspace order by id")
  List<Long> workspaces();

  @Select(
      """
      select id, title, game_folder, definition, game_version
      from workspace where id = #{id}
      """)
  WorkspaceRow workspace(long id);

  @Select(
      """
      select id, name, revision from profile
      where workspace_id = #{workspace} order by id limit 1
      """)
  ProfileRow profile(long workspace);

  @Select(
      """
      select m.id, m.strand_id, m.kind, m.folder, m.card, coalesce(a.name, '') as archive_name
      from mod m left join archive a on a.id = m.archive_id
      where m.workspace_id = #{workspace} and m.binned_at is null order by m.id
      """)
  List<ModRow> mods(long workspace);

  @Select(
      """
      select cast(0 as bigint) as mod_id, pack, path, size_bytes, sha256, cast(null as text) as stored
      from game_file where workspace_id = #{workspace}
      union all
      select f.mod_id, f.pack, f.path, f.size_bytes, f.sha256, f.stored
      from mod_file f join mod m on m.id = f.mod_id
      where m.workspace_id = #{workspace} and m.binned_at is null
      order by 1, 2, 3
      """)
  List<FileRow> files(long workspace);

  @Select("select mod_id, is_on from layer where profile_id = #{profile} order by position")
  List<LayerRow> layers(long profile);

  @Select("select name, is_on from plugin_wish where profile_id = #{profile} order by position")
  List<WishRow> wishes(long profile);

  @Select("select record_key, place, choice from record_decision where profile_id = #{profile}")
  List<DecisionRow> decisions(long profile);

  @Select("select mod_id, path from held_back where profile_id = #{profile}")
  List<HeldBackRow> heldBack(long profile);

  @Delete("delete from held_back where profile_id = #{profile}")
  void clearHeldBack(long profile);

  @Insert(
      """
      <script>insert into held_back (profile_id, mod_id, path) values
      <foreach collection='rows' item='r' separator=','>
      (#{profile}, #{r.modId}, #{r.path})</foreach></script>
      """)
  void addHeldBack(@Param("profile") long profile, @Param("rows") List<HeldBackRow> rows);

  @Delete("delete from layer where profile_id = #{profile}")
  void clearLayers(long profile);

  @Insert(
      """
      <script>insert into layer (profile_id, mod_id, position, is_on) values
      <foreach collection='rows' item='r' index='i' separator=','>
      (#{profile}, #{r.modId}, #{from} + #{i}, #{r.isOn})</foreach></script>
      """)
  void addLayers(
      @Param("profile") long profile, @Param("from") int from, @Param("rows") List<LayerRow> rows);

  /** A layer on top of all, switched on; nothing when the mod has its layer already. */
  @Insert(
      """
      insert into layer (profile_id, mod_id, position, is_on)
      select #{profile}, #{mod}, coalesce(max(position), 0) + 1, true
      from layer where profile_id = #{profile}
      on conflict do nothing
      """)
  void addTopLayer(@Param("profile") long profile, @Param("mod") long mod);

  @Delete("delete from plugin_wish where profile_id = #{profile}")
  void clearWishes(long profile);

  @Insert(
      """
      <script>insert into plugin_wish (profile_id, position, name, is_on) values
      <foreach collection='rows' item='r' index='i' separator=','>
      (#{profile}, #{from} + #{i}, #{r.name}, #{r.isOn})</foreach></script>
      """)
  void addWishes(
      @Param("profile") long profile, @Param("from") int from, @Param("rows") List<WishRow> rows);

  @Delete("delete from record_decision where profile_id = #{profile}")
  void clearDecisions(long profile);

  @Insert(
      """
      <script>insert into record_decision (profile_id, record_key, place, choice) values
      <foreach collection='rows' item='r' separator=','>
      (#{profile}, #{r.recordKey}, #{r.place}, #{r.choice})</foreach></script>
      """)
  void addDecisions(@Param("profile") long profile, @Param("rows") List<DecisionRow> rows);

  /** 1 when the profile was still at the revision that the caller saw, else 0. */
  @Update(
      """
      update profile set revision = revision + 1
      where id = #{profile} and revision = #{revision}
      """)
  int advance(@Param("profile") long profile, @Param("revision") long revision);

  @Update("update profile set revision = revision + 1 where id = #{profile}")
  void advanceWhatever(long profile);

  @Insert(
      """
      insert into change (profile_id, said, before, after)
      values (#{profile}, #{said}, #{before}, #{after})
      """)
  void addChange(
      @Param("profile") long profile,
      @Param("said") String said,
      @Param("before") String before,
      @Param("after") String after);

  /** After something new was done, what was undone before cannot be done again. */
  @Update("update change set state = 'dropped' where profile_id = #{profile} and state = 'undone'")
  void dropUndone(long profile);

  @Update("update change set state = #{state} where id = #{id}")
  void setState(@Param("id") long id, @Param("state") String state);

  @Select(
      """
      select id, said, before, after from change
      where profile_id = #{profile} and state = 'done' and before is not null
      order by id desc limit 1
      """)
  ChangeRow nextToUndo(long profile);

  @Select(
      """
      select id, said, before, after from change
      where profile_id = #{profile} and state = 'undone'
      order by id limit 1
      """)
  ChangeRow nextToRedo(long profile);
}
