package ironing.server.tools;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ToolMapper {
  /** A tool; lists and maps as JSON. */
  record ToolRow(
      long id,
      String name,
      String command,
      String folder,
      String environment,
      String reads,
      String writes) {}

  /** A run of a tool; lists as JSON. */
  record ToolRunRow(
      long id,
      long toolId,
      OffsetDateTime beganAt,
      OffsetDateTime endedAt,
      Integer exitCode,
      String output,
      String taken,
      String beside,
      String removed,
      String why) {}

  String RUN =
      "select r.id, r.tool_id, r.began_at, r.ended_at, r.exit_code, r.output, r.taken, r.beside,"
          + " r.removed, r.why from tool_run r join tool t on t.id = r.tool_id"
          + " where t.workspace_id = #{workspace} ";

  @Select(
      """
      select id, name, command, folder, environment, reads, writes from tool
      where workspace_id = #{workspace} order by lower(name)
      """)
  List<ToolRow> all(long workspace);

  @Select(
      """
      insert into tool (workspace_id, name, command, folder, environment, reads, writes)
      values (#{workspace}, #{t.name}, #{t.command}, #{t.folder}, #{t.environment}, #{t.reads},
        #{t.writes})
      returning id
      """)
  long add(@Param("workspace") long workspace, @Param("t") ToolRow tool);

  @Update(
      """
      update tool set name = #{t.name}, command = #{t.command}, folder = #{t.folder},
        environment = #{t.environment}, reads = #{t.reads}, writes = #{t.writes}
      where workspace_id = #{workspace} and id = #{t.id}
      """)
  void change(@Param("workspace") long workspace, @Param("t") ToolRow tool);

  @Delete("delete from tool where workspace_id = #{workspace} and id = #{id}")
  void remove(@Param("workspace") long workspace, @Param("id") long id);

  @Select("insert into tool_run (tool_id) values (#{tool}) returning id")
  long begin(long tool);

  @Update(
      """
      update tool_run set ended_at = now(), exit_code = #{r.exitCode}, output = #{r.output},
        taken = #{r.taken}, beside = #{r.beside}, removed = #{r.removed}, why = #{r.why}
      where id = #{r.id}
      """)
  void end(@Param("r") ToolRunRow run);

  @Update("update tool_run set ended_at = now(), why = #{why} where ended_at is null")
  void endAll(String why);

  @Select(
      RUN + "and r.id in (select max(id) from tool_run group by tool_id)" + " order by r.id desc")
  List<ToolRunRow> last(long workspace);

  /** What the user leaves as it is at a path: the SHA-256 of it; null for nothing. */
  @Select("select sha256 from left_alone where workspace_id = #{workspace} and path = #{path}")
  String leftAlone(@Param("workspace") long workspace, @Param("path") String path);

  @Select(RUN + "and r.id = #{run}")
  ToolRunRow run(@Param("workspace") long workspace, @Param("run") long run);

  @Select(RUN + "and r.tool_id = #{tool} order by r.id desc limit 20")
  List<ToolRunRow> runs(@Param("workspace") long workspace, @Param("tool") long tool);
}
