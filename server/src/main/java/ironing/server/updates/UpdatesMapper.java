package ironing.server.updates;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Updates that the user does not want. */
@Mapper
interface UpdatesMapper {
  /**
   * @param kind version, mod, variant
   * @param version the newest that was there when it was said
   */
  record LeftRow(
      long strandId, String kind, String version, String reason, OffsetDateTime saidAt) {}

  @Select(
      """
      select strand_id, kind, version, reason, said_at
      from update_left l join strand s on s.id = l.strand_id where s.workspace_id = #{workspace}
      """)
  List<LeftRow> left(long workspace);

  @Insert(
      """
      insert into update_left (strand_id, kind, version, reason)
      values (#{strand}, #{kind}, #{version}, #{reason})
      on conflict (strand_id) do update
        set kind = #{kind}, version = #{version}, reason = #{reason}, said_at = now()
      """)
  void leave(
      @Param("strand") long strand,
      @Param("kind") String kind,
      @Param("version") String version,
      @Param("reason") String reason);

  @Delete("delete from update_left where strand_id = #{strand}")
  void offerAgain(long strand);
}
