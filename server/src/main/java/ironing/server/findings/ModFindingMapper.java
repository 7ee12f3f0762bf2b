package ironing.server.findings;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** ModFindings of the user, and those that were brought in. */
@Mapper
interface ModFindingMapper {
  /**
   * @param line as the format has it
   */
  record FindingRow(long id, boolean own, String line) {}

  /**
   * The user's about any mod, and those that were brought in about some.
   *
   * @param mods a list in JSON
   */
  @Select(
      """
      select id, is_own as own, line from finding
      where workspace_id = #{workspace}
        and (is_own or mod = any(array(select jsonb_array_elements_text(cast(#{mods} as jsonb)))))
      order by id
      """)
  List<FindingRow> about(@Param("workspace") long workspace, @Param("mods") String mods);

  /**
   * @param rows a list in JSON of mod, line
   */
  @Insert(
      """
      insert into finding (workspace_id, is_own, mod, line)
      select #{workspace}, #{own}, r.mod, r.line
      from jsonb_to_recordset(cast(#{rows} as jsonb)) as r(mod text, line text)
      """)
  void add(
      @Param("workspace") long workspace, @Param("own") boolean own, @Param("rows") String rows);

  @Delete("delete from finding where workspace_id = #{workspace} and id = #{id}")
  int remove(@Param("workspace") long workspace, @Param("id") long id);

  @Delete("delete from finding where workspace_id = #{workspace} and not is_own")
  int removeOthers(long workspace);
}
