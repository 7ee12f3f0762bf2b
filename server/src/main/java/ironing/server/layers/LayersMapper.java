package ironing.server.layers;

import java.util.List;
import org.apache.ibatis.annotations.Arg;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** What a list of layers says of mods beside their files. */
@Mapper
interface LayersMapper {
  /**
   * @param tags as JSON
   */
  record ModNoteRow(long modId, String tags, String notes) {}

  /** Of the mods that have any. */
  // told here and not found out by name, which MyBatis does for each row anew
  @Arg(column = "mod_id", javaType = long.class)
  @Arg(column = "tags", javaType = String.class)
  @Arg(column = "notes", javaType = String.class)
  @Select(
      """
      select m.id as mod_id, s.tags, s.notes
      from mod m join strand s on s.id = m.strand_id
      where m.workspace_id = #{workspace} and m.binned_at is null
        and (s.tags <> '[]' or s.notes <> '')
      """)
  List<ModNoteRow> notes(long workspace);
}
