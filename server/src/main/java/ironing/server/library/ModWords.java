package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.library.ModCard;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.LibraryViews.CardText;
import ironing.server.library.StrandMapper.StrandRow;
import ironing.server.platform.Json;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspaces;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** What the user says of a mod: tags, notes, and what its card should say. */
@Component
class ModWords {
  private static final int LONGEST_TAG = 40;
  private static final int LONGEST_NOTES = 200_000;
  private final ModStore mods;
  private final LibraryMapper db;
  private final StrandMapper strands;
  private final OpenWorkspaces workspaces;
  private final TransactionTemplate transaction;
  private final Json json;

  ModWords(
      ModStore mods,
      LibraryMapper db,
      StrandMapper strands,
      OpenWorkspaces workspaces,
      TransactionTemplate transaction,
      Json json) {
    this.mods = mods;
    this.db = db;
    this.strands = strands;
    this.workspaces = workspaces;
    this.transaction = transaction;
    this.json = json;
  }

  /**
   * @throws IroningException with code {@code tag-long}
   */
  void setTags(long workspace, long mod, List<String> wished) {
    ModRow row = mods.row(workspace, mod);
    strands.setTags(row.strandId(), json.write(checked(wished)));
    workspaces.tellLibrary(workspace, mod);
  }

  /**
   * Gives tags to several mods, and takes tags from them; all of them or none.
   *
   * @throws IroningException with code {@code tag-long}
   */
  void changeTags(long workspace, List<Long> of, List<String> added, List<String> removed) {
    List<String> add = checked(added);
    List<ModRow> rows = of.stream().map(mod -> mods.row(workspace, mod)).toList();
    transaction.executeWithoutResult(
        t -> {
          for (ModRow row : rows) {
            Set<String> tags =
                new LinkedHashSet<>(
                    List.of(json.read(strands.strand(row.strandId()).tags(), String[].class)));
            tags.addAll(add);
            removed.forEach(tags::remove);
            strands.setTags(row.strandId(), json.write(List.copyOf(tags)));
          }
        });
    of.forEach(mod -> workspaces.tellLibrary(workspace, mod));
  }

  private static List<String> checked(List<String> wished) {
    List<String> tags =
        wished.stream().map(String::strip).filter(t -> !t.isEmpty()).distinct().toList();
    for (String t : tags) {
      if (t.length() > LONGEST_TAG) {
        throw IroningException.of(
            "tag-long", t, "A tag has at most 40 letters.", "Shorten it, or write a note.");
      }
    }
    return tags;
  }

  /**
   * @throws IroningException with code {@code notes-long}
   */
  void setNotes(long workspace, long mod, String notes) {
    ModRow row = mods.row(workspace, mod);
    if (notes.length() > LONGEST_NOTES) {
      throw IroningException.of(
          "notes-long", "The notes", "They have more than 200,000 letters.", "Shorten them.");
    }
    strands.setNotes(row.strandId(), notes);
    workspaces.tellLibrary(workspace, mod);
  }

  /**
   * Says what the card should say; the card as it came is kept.
   *
   * @throws IroningException with code {@code card-wrong}
   */
  void setCard(long workspace, long mod, CardText body) {
    ModRow row = mods.row(workspace, mod);
    if (body.name() == null || body.name().isBlank()) {
      throw IroningException.of("card-wrong", "The card", "It has no name.", "Give it one.");
    }
    if (body.version() == null || body.version().isBlank()) {
      throw IroningException.of("card-wrong", "The card", "It has no version.", "Give it one.");
    }
    ModCard before = json.read(row.card(), ModCard.class);
    boolean sourced = !(body.url() + body.item() + body.release()).isBlank();
    ModCard after =
        before.edited(
            body.name().strip(),
            body.version().strip(),
            List.copyOf(body.authors()),
            body.summary().strip(),
            sourced
                ? Optional.of(new ModCard.Source(body.url(), body.item(), body.release()))
                : Optional.empty());
    workspaces.changeLibrary(
        workspace,
        "Edited the card of “" + after.name() + "”",
        LibraryChange.BESIDE,
        () -> {
          db.setCard(mod, json.write(after));
          return mod;
        });
  }

  List<StrandRow> strands(long workspace) {
    return strands.strands(workspace);
  }

  /** What all versions of a mod share. */
  StrandRow strand(ModRow mod) {
    return strands.strand(mod.strandId());
  }
}
