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
      String saidFault) {}

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
      "select id, started_at, ended_at, exit_code, output, log, profile_id, picture, said_fault"
          + " from run ";

  @Select(
      """
      insert into run (workspace_id, profile_id, arrangement, picture)
      values (#{workspace}, #{profile}, #{arrangement}, #{picture}) returning id
      """)
  long add(
      @Param("workspace") long workspace,
      @Param("profile") long profile,
      @Param("arrangement") String arrangement,
      @Param("picture") String picture);

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
        said_fault = #{saidFault}
      where id = #{id}
      """)
  void end(
      @Param("id") long id,
      @Param("exitCode") int exitCode,
      @Param("output") String output,
      @Param("log") String log,
      @Param("saidFault") String saidFault);

  @Update("update run set ended_at = now(), exit_code = -1 where ended_at is null")
  void endAll();

  @Select(
      """
      select id, started_at, ended_at, exit_code, coalesce(log, '') <> '' as logged, said_fault,
        profile_id, picture
      from run
      where workspace_id = #{workspace} order by id desc limit 20
      """)
  List<RunLine> latest(long workspace);

  @Select(
      RUN + "where workspace_id = #{workspace} and ended_at is not null order by id desc limit 1")
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

  @Select(RUN + "where workspace_id = #{workspace} and id = #{id}")
  RunRow run(@Param("workspace") long workspace, @Param("id") long id);

  @Select(
      RUN
          + "where workspace_id = #{workspace} and id < #{id} and log <> ''"
          + " order by id desc limit 1")
  RunRow before(@Param("workspace") long workspace, @Param("id") long id);
}
