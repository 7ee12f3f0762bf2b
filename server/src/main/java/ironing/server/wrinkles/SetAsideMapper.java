package ironing.server.wrinkles;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Wrinkles that the user wants quiet. */
@Mapper
interface SetAsideMapper {
  record SetAsideRow(String key, String reason, String at) {}

  @Select(
      """
      select key, reason, to_char(at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
      from set_aside where workspace_id = #{workspace}
      """)
  List<SetAsideRow> all(long workspace);

  @Insert(
      """
      insert into set_aside (workspace_id, key, reason) values (#{workspace}, #{key}, #{reason})
      on conflict (workspace_id, key) do update set reason = excluded.reason, at = now()
      """)
  void add(
      @Param("workspace") long workspace, @Param("key") String key, @Param("reason") String reason);

  @Delete("delete from set_aside where workspace_id = #{workspace} and key = #{key}")
  int drop(@Param("workspace") long workspace, @Param("key") String key);
}
