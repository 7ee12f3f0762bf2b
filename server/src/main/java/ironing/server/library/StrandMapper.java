package ironing.server.library;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What a user says of a mod, whichever version of it is in use. */
@Mapper
interface StrandMapper {
  record StrandRow(long id, String tags, String notes) {}

  @Select("select id, tags, notes from strand where id = #{strand}")
  StrandRow strand(long strand);

  @Select("select id, tags, notes from strand where workspace_id = #{workspace}")
  List<StrandRow> strands(long workspace);

  @Update("update strand set tags = #{tags} where id = #{strand}")
  void setTags(@Param("strand") long strand, @Param("tags") String tags);

  @Update("update strand set notes = #{notes} where id = #{strand}")
  void setNotes(@Param("strand") long strand, @Param("notes") String notes);
}
