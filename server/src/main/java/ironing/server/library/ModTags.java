package ironing.server.library;

import ironing.server.platform.Json;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.springframework.stereotype.Component;

/** The tags of all mods of a workspace. */
@Component
public class ModTags {
  private final TagsMapper db;
  private final Json json;

  ModTags(TagsMapper db, Json json) {
    this.db = db;
    this.json = json;
  }

  /** By mod; one without any is left out. */
  public Map<Long, List<String>> of(long workspace) {
    Map<Long, List<String>> tags = new HashMap<>();
    for (TagsMapper.TagsRow r : db.all(workspace))
      tags.put(r.modId(), List.of(json.read(r.tags(), String[].class)));
    return tags;
  }

  /** Tags as they lie in the database. */
  @Mapper
  interface TagsMapper {
    /**
     * @param tags as JSON
     */
    record TagsRow(long modId, String tags) {}

    @Select(
        """
        select m.id as mod_id, s.tags from mod m join strand s on s.id = m.strand_id
        where m.workspace_id = #{workspace} and m.binned_at is null and s.tags <> '[]'
        """)
    List<TagsRow> all(long workspace);
  }
}
