package ironing.server.timeline;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

@Mapper
interface TimelineMapper {
  record ChangeRow(long id, OffsetDateTime at, String said, String state, boolean isUndoable) {}

  @Select(
      """
      select id, at, said, state, before is not null as is_undoable from change
      where profile_id = #{profile} order by id desc limit #{limit}
      """)
  List<ChangeRow> latest(@Param("profile") long profile, @Param("limit") int limit);
}
