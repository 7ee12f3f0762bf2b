package ironing.core.mends;

import ironing.core.combinedfiles.Choice;
import ironing.core.combinedfiles.FileCombiner;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.layers.Holdings;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * Several versions of one file that can be combined.
 *
 * @param path in the spelling that is deployed
 * @param base what each is measured against
 * @param known whether the base is the game's, or known to be what the others were made from
 * @param sure whether the contenders cannot have been made from a file of the game that nobody
 *     knows; see {@link FileCombiner}
 * @param all every version, in layer order
 * @param older versions of the contending mods that are in the library and not in use, and those of
 *     the game that are kept
 * @param contenders in layer order; those that are as the base is are none. Where the base is the
 *     game's of before an update, the game as it is now is the first of them
 * @param madeOn by the id of a contender what it was made from, where that is neither the base nor
 *     the game as it is now
 * @param choices by the keys of places
 */
public record Contest(
    String path,
    Combine rule,
    FileSide base,
    boolean known,
    boolean sure,
    List<FileSide> all,
    List<FileSide> older,
    List<FileSide> contenders,
    Map<String, FileSide> madeOn,
    Map<String, Choice> choices) {
  /** Whether the base is the game's, and not one of the mods'. */
  public boolean ofGame() {
    return base.mod() == Holdings.GAME;
  }

  /** Whether the base is what the game had before an update. */
  public boolean isBeforeUpdate() {
    return ofGame() && base.slot() < 0;
  }

  /** What each can be measured against. */
  public List<FileSide> bases() {
    return Stream.concat(all.stream(), older.stream()).toList();
  }

  /** The same while combining comes to the same. */
  public String print() {
    StringBuilder out = new StringBuilder(path).append('\n').append(base.sha256());
    out.append(rule.as()).append(rule.once()).append(rule.key()).append(rule.arrays());
    if (!rule.goesOn().isEmpty()) out.append(rule.goesOn());
    out.append(sure);
    contenders.forEach(c -> out.append('\n').append(c.id()).append(' ').append(c.sha256()));
    new TreeMap<>(madeOn)
        .forEach((id, on) -> out.append('\n').append(id).append('<').append(on.sha256()));
    new TreeMap<>(choices).forEach((k, c) -> out.append('\n').append(k).append(' ').append(c));
    return out.toString();
  }

  /** Whether all who changed it have the same. */
  public boolean isTwins() {
    return contenders.stream().map(FileSide::sha256).distinct().count() == 1;
  }
}
