package ironing.server.workspace;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Arg;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What an open workspace is loaded from, and how an arrangement is written. */
@Mapper
interface OpenWorkspaceMapper {
  record WorkspaceRow(
      long id,
      String title,
      String gameFolder,
      String definition,
      String gameVersion,
      long profileId,
      long revision,
      String rules,
      String loadRules) {}

  record PlaceRow(String place, String folder) {}

  record ProfileRow(long id, String name, String arrangement) {}

  record ModRow(
      long id,
      long strandId,
      String kind,
      String folder,
      String card,
      String archiveName,
      OffsetDateTime installedAt) {}

  /**
   * @param swapMod a mod whose content was exchanged with that of {@code swapFormer}; null for none
   */
  record ChangeRow(
      long id, String said, String before, String after, Long swapMod, Long swapFormer) {}

  @Select("select id from workspace order by id")
  List<Long> workspaces();

  /** The one that was changed last; null where there is none. */
  @Select(
      """
      select w.id from workspace w
      order by (select max(c.id) from change c where c.workspace_id = w.id) desc nulls last, w.id
      limit 1
      """)
  Long lastUsed();

  @Select(
      """
      select id, title, game_folder, definition, game_version, profile_id, revision, rules, load_rules
      from workspace where id = #{id}
      """)
  WorkspaceRow workspace(long id);

  @Select(
      """
      select id, name, arrangement from profile
      where id = (select profile_id from workspace where id = #{workspace})
      """)
  ProfileRow profile(long workspace);

  @Select("select place, folder from workspace_place where workspace_id = #{workspace}")
  List<PlaceRow> places(long workspace);

  // told here and not found out by name, which MyBatis does for each row anew
  @Arg(column = "id", javaType = long.class)
  @Arg(column = "strand_id", javaType = long.class)
  @Arg(column = "kind", javaType = String.class)
  @Arg(column = "folder", javaType = String.class)
  @Arg(column = "card", javaType = String.class)
  @Arg(column = "archive_name", javaType = String.class)
  @Arg(column = "installed_at", javaType = OffsetDateTime.class)
  @Select(
      """
      select m.id, m.strand_id, m.kind, m.folder, m.card, coalesce(a.name, '') as archive_name,
        m.installed_at
      from mod m left join archive a on a.id = m.archive_id
      where m.workspace_id = #{workspace} and m.binned_at is null order by m.id
      """)
  List<ModRow> mods(long workspace);

  @Update("update profile set arrangement = #{arrangement} where id = #{profile}")
  void setArrangement(@Param("profile") long profile, @Param("arrangement") String arrangement);

  @Update("update mod set card = #{card}, card_given = #{card} where id = #{mod}")
  void setCard(@Param("mod") long mod, @Param("card") String card);

  @Update("update workspace set rules = #{rules} where id = #{workspace}")
  void setRules(@Param("workspace") long workspace, @Param("rules") String rules);

  @Update("update workspace set load_rules = #{rules} where id = #{workspace}")
  void setLoadRules(@Param("workspace") long workspace, @Param("rules") String rules);

  /** 1 when the workspace was still at the revision that the caller saw, else 0. */
  @Update(
      """
      update workspace set revision = revision + 1
      where id = #{workspace} and revision = #{revision}
      """)
  int advance(@Param("workspace") long workspace, @Param("revision") long revision);

  @Update("update workspace set revision = revision + 1 where id = #{workspace}")
  void advanceWhatever(long workspace);

  @Insert(
      """
      insert into change (workspace_id, profile_id, origin, said, before, after)
      values (#{workspace}, #{profile}, #{origin}, #{said}, #{before}, #{after})
      """)
  void addChange(
      @Param("workspace") long workspace,
      @Param("profile") long profile,
      @Param("origin") String origin,
      @Param("said") String said,
      @Param("before") String before,
      @Param("after") String after);

  /** A change that exchanges the content of a mod; the arrangement stays. */
  @Insert(
      """
      insert into change (workspace_id, profile_id, origin, said, before, after, swaps, swap_mod,
        swap_former)
      values (#{workspace}, #{profile}, #{origin}, #{said}, '{}', '{}', true, #{mod}, #{former})
      """)
  void addSwap(
      @Param("workspace") long workspace,
      @Param("profile") long profile,
      @Param("origin") String origin,
      @Param("said") String said,
      @Param("mod") long mod,
      @Param("former") long former);

  /** The changes of a profile after one, as far as they stand, the newest first. */
  @Select(
      """
      select id, said, before, after, swap_mod, swap_former from change
      where profile_id = #{profile} and id > #{change} and state = 'done' and before is not null
      order by id desc
      """)
  List<ChangeRow> doneSince(@Param("profile") long profile, @Param("change") long change);

  /** After something new was done, what was undone before cannot be done again. */
  @Update("update change set state = 'dropped' where profile_id = #{profile} and state = 'undone'")
  void dropUndone(long profile);

  @Update("update change set state = #{state} where id = #{id}")
  void setState(@Param("id") long id, @Param("state") String state);

  @Select(
      """
      select id, said, before, after, swap_mod, swap_former from change
      where profile_id = #{profile} and state = 'done' and before is not null
        and (not swaps or swap_former is not null)
      order by id desc limit 1
      """)
  ChangeRow nextToUndo(long profile);

  @Select(
      """
      select id, said, before, after, swap_mod, swap_former from change
      where profile_id = #{profile} and state = 'undone'
        and (not swaps or swap_former is not null)
      order by id limit 1
      """)
  ChangeRow nextToRedo(long profile);
}
