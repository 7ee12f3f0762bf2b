package ironing.server.testrun;

import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface RunMapper {
  record RunRow(
      long id,
      OffsetDateTime startedAt,
      OffsetDateTime endedAt,
      Integer exitCode,
      String output,
      String log,
      Long profileId,
      String picture,
      String saidFault,
      boolean isCutOff,
      Long ms,
      Long loadingMs,
      Long peakBytes) {}

  /** A run without what it said. */
  record RunLine(
      long id,
      OffsetDateTime startedAt,
      OffsetDateTime endedAt,
      Integer exitCode,
      boolean logged,
      String saidFault,
      Long profileId,
      String picture) {}

  String RUN =
      "select id, started_at, ended_at, exit_code, output, log, profile_id, picture, said_fault,"
          + " is_cut_off, ms, loading_ms, peak_bytes from run ";

  @Select(
      """
      insert into run (workspace_id, profile_id, arrangement, picture, is_trial)
      values (#{workspace}, #{profile}, #{arrangement}, #{picture}, #{trial}) returning id
      """)
  long add(
      @Param("workspace") long workspace,
      @Param("profile") long profile,
      @Param("arrangement") String arrangement,
      @Param("picture") String picture,
      @Param("trial") boolean trial);

  @Select(
      """
      select arrangement from run
      where workspace_id = #{workspace} and id = #{id} and profile_id = #{profile}
        and arrangement <> ''
      """)
  String arrangement(
      @Param("workspace") long workspace, @Param("id") long id, @Param("profile") long profile);

  @Update(
      """
      update run set ended_at = now(), exit_code = #{exitCode}, output = #{output}, log = #{log},
        said_fault = #{saidFault}, is_cut_off = #{cutOff}, ms = #{ms}, loading_ms = #{loadingMs},
        peak_bytes = #{peakBytes}
      where id = #{id}
      """)
  void end(
      @Param("id") long id,
      @Param("exitCode") int exitCode,
      @Param("output") String output,
      @Param("log") String log,
      @Param("saidFault") String saidFault,
      @Param("cutOff") boolean cutOff,
      @Param("ms") long ms,
      @Param("loadingMs") Long loadingMs,
      @Param("peakBytes") Long peakBytes);

  /**
   * Lets go of what the older runs of sets that were tried said; what came of them is written down.
   *
   * @param kept how many of the newest keep it
   */
  @Update(
      """
      update run set output = '', log = ''
      where workspace_id = #{workspace} and is_trial and (output <> '' or log <> '')
        and id <= (select id from run where workspace_id = #{workspace} and is_trial
          order by id desc offset #{kept} limit 1)
      """)
  void shortenTrials(@Param("workspace") long workspace, @Param("kept") int kept);

  @Update("update run set picture = #{picture} where id = #{id}")
  void setPicture(@Param("id") long id, @Param("picture") String picture);

  @Update("update run set ended_at = now(), exit_code = -1 where ended_at is null")
  void endAll();

  @Select(
      """
      select id, started_at, ended_at, exit_code, coalesce(log, '') <> '' as logged, said_fault,
        profile_id, picture
      from run
      where workspace_id = #{workspace} and not is_trial order by id desc limit 20
      """)
  List<RunLine> latest(long workspace);

  @Select(
      RUN
          + "where workspace_id = #{workspace} and ended_at is not null and not is_trial"
          + " order by id desc limit 1")
  RunRow lastEnded(long workspace);

  /**
   * When a run went on.
   *
   * @param logged whether it is known what it read
   */
  record Span(long id, OffsetDateTime startedAt, OffsetDateTime endedAt, boolean logged) {
    // it is noted once the game has started, and that it has ended a little later
    private static final Duration BREATH = Duration.ofSeconds(2);

    boolean has(OffsetDateTime at) {
      return !startedAt.minus(BREATH).isAfter(at)
          && (endedAt == null || !endedAt.plus(BREATH).isBefore(at));
    }
  }

  /** All runs, the newest first. */
  @Select(
      """
      select id, started_at, ended_at, log is not null as logged from run
      where workspace_id = #{workspace} order by id desc
      """)
  List<Span> spans(long workspace);

  /** A run with how its profile was arranged. */
  record ArrangedRow(long id, OffsetDateTime startedAt, String arrangement) {}

  @Select(
      """
      select id, started_at, arrangement from run
      where workspace_id = #{workspace} and profile_id = #{profile} and ended_at is not null
        and arrangement <> '' and picture <> '' and not is_trial
      order by id desc limit 20
      """)
  List<ArrangedRow> arranged(@Param("workspace") long workspace, @Param("profile") long profile);

  /** What a run of the user's has cost, and how its profile was arranged. */
  record CostRow(
      long id,
      OffsetDateTime startedAt,
      long ms,
      Long loadingMs,
      Long peakBytes,
      Integer exitCode,
      String arrangement) {}

  /** A run and some before it of which it is known, the newest first. */
  @Select(
      """
      select id, started_at, ms, loading_ms, peak_bytes, exit_code, arrangement from run
      where workspace_id = #{workspace} and id <= #{id} and ms is not null and not is_trial
      order by id desc limit #{most}
      """)
  List<CostRow> costs(
      @Param("workspace") long workspace, @Param("id") long id, @Param("most") int most);

  @Select(RUN + "where workspace_id = #{workspace} and id = #{id}")
  RunRow run(@Param("workspace") long workspace, @Param("id") long id);

  @Select(
      RUN
          + "where workspace_id = #{workspace} and id < #{id} and log <> '' and not is_trial"
          + " order by id desc limit 1")
  RunRow before(@Param("workspace") long workspace, @Param("id") long id);
}
