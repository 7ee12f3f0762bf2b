package ironing.server.testrun;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Signs that the user has written, and what they have seen. */
@Mapper
interface SignMapper {
  /**
   * @param sign as JSON
   */
  record OwnSignRow(long id, long strandId, String sign) {}

  record TickRow(long strandId, String says, boolean isSeen) {}

  @Select(
      """
      select o.* from own_sign o join strand s on s.id = o.strand_id
      where s.workspace_id = #{workspace} order by o.id
      """)
  List<OwnSignRow> own(long workspace);

  @Insert("insert into own_sign (strand_id, sign) values (#{strand}, #{sign})")
  void add(@Param("strand") long strand, @Param("sign") String sign);

  @Delete(
      """
      delete from own_sign o using strand s
      where s.id = o.strand_id and s.workspace_id = #{workspace} and o.id = #{id}
      """)
  int remove(@Param("workspace") long workspace, @Param("id") long id);

  @Select("select strand_id, says, is_seen from sign_ticked where run_id = #{run}")
  List<TickRow> ticks(long run);

  @Insert(
      """
      insert into sign_ticked (run_id, strand_id, says, is_seen)
      values (#{run}, #{strand}, #{says}, #{seen})
      on conflict (run_id, strand_id, says) do update set is_seen = #{seen}
      """)
  void tick(
      @Param("run") long run,
      @Param("strand") long strand,
      @Param("says") String says,
      @Param("seen") boolean seen);

  @Delete(
      """
      delete from sign_ticked
      where run_id = #{run} and strand_id = #{strand} and says = #{says}
      """)
  void untick(@Param("run") long run, @Param("strand") long strand, @Param("says") String says);
}
