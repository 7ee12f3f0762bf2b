package ironing.server.trouble;

import ironing.core.trouble.Answer;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part.Level;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Searches and what they have tried. */
@Mapper
interface SearchMapper {
  /** Where a search stands. */
  enum SearchState {
    /** A set is tried, or waits for the user's answer. */
    SEARCHING,
    /** It can go on; the game folder is as it was. */
    RESTING,
    /** A smallest set was found. */
    FOUND,
    /** The fault does not show with everything. */
    NOT_SHOWN,
    /** The fault shows with nothing of what is searched. */
    NONE,
    /** What was found did not show the fault again. */
    UNTOLD,
    /** The user has given it up. */
    LEFT,
    /** What a mod costs is measured. */
    MEASURED;

    boolean isOver() {
      return this != SEARCHING && this != RESTING;
    }
  }

  /**
   * @param fault as JSON, as are {@code named}, {@code parts}, {@code known} and {@code found}
   * @param arrangement of the profile when the search began
   * @param base in which all parts are in play
   * @param inFolderAfter of a search among mods: where a set of it, or of one inside of it, may lie
   *     in the game folder, the user's last deployment before that; null where none does
   * @param measured the part of which it is measured what it costs; null for a search
   * @param wholeFirst how often the whole set is tried before the search goes on
   */
  record SearchRow(
      long id,
      long workspaceId,
      Long parentId,
      OffsetDateTime begunAt,
      Level level,
      SearchState state,
      boolean isAutomatic,
      int limitSeconds,
      String fault,
      String named,
      String parts,
      String known,
      String found,
      long profileId,
      long trialProfileId,
      String arrangement,
      String base,
      boolean wasDeployed,
      Long inFolderAfter,
      Integer measured,
      int wholeFirst) {}

  /**
   * @param members numbers of parts, between commas
   * @param picture the sum of what was tried; empty where no run is known
   * @param ms what its run took, as {@code loadingMs} and {@code peakBytes}; null where not known
   */
  record TryRow(
      long id,
      long searchId,
      String members,
      String why,
      Long runId,
      Answer answer,
      boolean isByUser,
      String note,
      OffsetDateTime at,
      String picture,
      Long ms,
      Long loadingMs,
      Long peakBytes) {
    /** One to write down. */
    static TryRow told(
        long search,
        String members,
        Next.Why why,
        Optional<Long> run,
        Answer answer,
        boolean byUser,
        String note) {
      return new TryRow(
          0,
          search,
          members,
          why.name(),
          run.orElse(null),
          answer,
          byUser,
          note,
          null,
          "",
          null,
          null,
          null);
    }
  }

  /** The number that a new row gets. */
  final class NewSearch {
    private long id;

    public long getId() {
      return id;
    }

    public void setId(long id) {
      this.id = id;
    }
  }

  @Insert(
      """
      insert into search (workspace_id, parent_id, level, state, is_automatic, limit_seconds, fault,
        named, parts, known, found, profile_id, trial_profile_id, arrangement, base, was_deployed,
        measured, whole_first)
      values (#{s.workspaceId}, #{s.parentId}, #{s.level}, #{s.state}, #{s.isAutomatic},
        #{s.limitSeconds}, #{s.fault}, #{s.named}, #{s.parts}, #{s.known}, #{s.found},
        #{s.profileId}, #{s.trialProfileId}, #{s.arrangement}, #{s.base}, #{s.wasDeployed},
        #{s.measured}, #{s.wholeFirst})
      """)
  @Options(useGeneratedKeys = true, keyProperty = "row.id", keyColumn = "id")
  void add(@Param("s") SearchRow s, @Param("row") NewSearch row);

  @Select("select * from search where workspace_id = #{workspace} and id = #{id}")
  SearchRow search(@Param("workspace") long workspace, @Param("id") long id);

  /** The newest first. */
  @Select("select * from search where workspace_id = #{workspace} order by id desc")
  List<SearchRow> all(long workspace);

  /** Those of all workspaces of which a set may lie in the game folder. */
  @Select("select * from search where in_folder_after is not null order by id")
  List<SearchRow> inFolder();

  @Update("update search set in_folder_after = #{after} where id = #{id}")
  void setInFolder(@Param("id") long id, @Param("after") Long after);

  @Update("update search set state = #{state} where id = #{id}")
  void setState(@Param("id") long id, @Param("state") SearchState state);

  @Update("update search set state = #{state}, found = #{found} where id = #{id}")
  void end(@Param("id") long id, @Param("state") SearchState state, @Param("found") String found);

  @Update("update search set is_automatic = #{automatic} where id = #{id}")
  void setAutomatic(@Param("id") long id, @Param("automatic") boolean automatic);

  @Select(
      """
      select t.*, coalesce(r.picture, '') as picture, r.ms, r.loading_ms, r.peak_bytes
      from search_try t left join run r on r.id = t.run_id
      where search_id = #{search} order by t.id
      """)
  List<TryRow> tries(long search);

  @Insert(
      """
      insert into search_try (search_id, members, why, run_id, answer, is_by_user, note)
      values (#{t.searchId}, #{t.members}, #{t.why}, #{t.runId}, #{t.answer}, #{t.isByUser}, #{t.note})
      """)
  void addTry(@Param("t") TryRow t);

  @Delete("delete from search_try where search_id = #{search} and id = #{id}")
  int removeTry(@Param("search") long search, @Param("id") long id);

  /** Removes what goes on inside of a search. */
  @Delete("delete from search where parent_id = #{search}")
  void removeInside(long search);

  /** The last run of a set that was tried with a profile; null where it was answered already. */
  @Select(
      """
      select r.id from run r
      where r.id = (select max(id) from run
          where workspace_id = #{workspace} and profile_id = #{profile} and is_trial)
        and not exists (select 1 from search_try t where t.run_id = r.id)
      """)
  Long lastTrial(@Param("workspace") long workspace, @Param("profile") long profile);
}
