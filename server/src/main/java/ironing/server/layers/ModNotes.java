package ironing.server.layers;

import ironing.server.layers.LayersMapper.ModNoteRow;
import ironing.server.platform.Json;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** What the user has written on mods. */
@Component
public class ModNotes {
  private final LayersMapper db;
  private final Json json;

  ModNotes(LayersMapper db, Json json) {
    this.db = db;
    this.json = json;
  }

  /** Of one mod. */
  public record Note(List<String> tags, String text) {
    public static final Note NONE = new Note(List.of(), "");
  }

  /** By mod; those without any are left out. */
  public Map<Long, Note> of(long workspace) {
    Map<Long, Note> notes = new HashMap<>();
    for (ModNoteRow n : db.notes(workspace))
      notes.put(n.modId(), new Note(List.of(json.read(n.tags(), String[].class)), n.notes()));
    return notes;
  }
}
