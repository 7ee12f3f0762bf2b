package ironing.server.timeline;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

@Mapper
interface TimelineMapper {
  record ChangeRow(
      long id,
      OffsetDateTime at,
      String origin,
      String profile,
      String said,
      String state,
      boolean isUndoable) {}

  @Select(
      """
      select c.id, c.at, c.origin, coalesce(p.name, '') as profile, c.said, c.state,
        (c.before is not null and (not c.swaps or c.swap_former is not null)) as is_undoable
      from change c left join profile p on p.id = c.profile_id
      where c.workspace_id = #{workspace} and c.id < #{before} order by c.id desc limit #{limit}
      """)
  List<ChangeRow> latest(
      @Param("workspace") long workspace, @Param("before") long before, @Param("limit") int limit);

  /** A change of a profile, null when it has no such one that stands. */
  @Select(
      """
      select id, at, origin, '' as profile, said, state, true as is_undoable from change
      where id = #{change} and profile_id = #{profile} and state = 'done'
      """)
  ChangeRow one(@Param("profile") long profile, @Param("change") long change);
}
