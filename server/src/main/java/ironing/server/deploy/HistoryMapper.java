package ironing.server.deploy;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface HistoryMapper {
  /**
   * @param profileId null when that profile is gone
   * @param tookMs null, and an empty result, when nobody knows how it ended
   */
  record DeploymentRow(
      long id,
      Long profileId,
      String kind,
      String beganAt,
      Long tookMs,
      String result,
      int put,
      int takenOut,
      int files,
      String why) {}

  @Select(
      """
      insert into deployment (workspace_id, profile_id, kind, arrangement)
      values (#{workspace}, #{profile}, #{kind}, #{arrangement}) returning id
      """)
  long begin(
      @Param("workspace") long workspace,
      @Param("profile") long profile,
      @Param("kind") String kind,
      @Param("arrangement") String arrangement);

  @Update(
      """
      update deployment set took_ms = #{tookMs}, result = #{result}, put = #{put},
        taken_out = #{takenOut}, files = #{files}, why = #{why}
      where id = #{id}
      """)
  void end(
      @Param("id") long id,
      @Param("tookMs") long tookMs,
      @Param("result") String result,
      @Param("put") int put,
      @Param("takenOut") int takenOut,
      @Param("files") int files,
      @Param("why") String why);

  @Select(
      """
      select id, profile_id, kind,
        to_char(began_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as began_at,
        took_ms, result, put, taken_out, files, why
      from deployment where workspace_id = #{workspace} order by id desc limit #{limit}
      """)
  List<DeploymentRow> latest(@Param("workspace") long workspace, @Param("limit") int limit);

  /** The last time that all was put in or taken out; 0 for never. */
  @Select(
      """
      select coalesce(max(id), 0) from deployment
      where workspace_id = #{workspace} and kind in ('deploy', 'undeploy') and result = 'done'
      """)
  long lastWhole(long workspace);

  /**
   * All of it put in or taken out.
   *
   * @param profileId null when that profile is gone
   */
  record WholeRow(Long profileId, String kind, String arrangement) {}

  /** The last such since some moment; null where there is none. */
  @Select(
      """
      select profile_id, kind, arrangement from deployment
      where workspace_id = #{workspace} and kind in ('deploy', 'undeploy') and result = 'done'
        and began_at > #{since}
      order by id desc limit 1
      """)
  WholeRow lastWholeSince(@Param("workspace") long workspace, @Param("since") OffsetDateTime since);

  /** The arrangement of one that was made with this profile; null when there is none. */
  @Select(
      """
      select arrangement from deployment
      where workspace_id = #{workspace} and id = #{id} and profile_id = #{profile}
      """)
  String arrangement(
      @Param("workspace") long workspace, @Param("id") long id, @Param("profile") long profile);
}
