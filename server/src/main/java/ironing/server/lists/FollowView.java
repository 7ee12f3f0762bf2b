package ironing.server.lists;

import ironing.server.platform.MayBeAbsent;
import java.util.List;

/**
 * A published list beside what is here.
 *
 * @param remarks what was not plain about the file
 * @param gone whether it is no longer followed
 */
public record FollowView(
    long revision,
    long id,
    String title,
    String at,
    List<String> remarks,
    boolean gone,
    List<EntryView> entries,
    List<ExtraView> extra) {

  /**
   * @param away how many entries are missing here, of another version, to be switched or moved
   */
  public record ListSummary(long id, String title, String at, int entries, int away) {}

  /**
   * @param number from 1, the lowest layer or the plugin that loads first
   * @param version that the list asks for; empty where it does not say
   * @param mod what stands for it here, or brings the plugin; absent when it is missing
   * @param hereVersion of that mod, for mods
   * @param otherVersion whether the list asks for another version than that
   * @param inLibrary another version of the mod that is here and is the one asked for
   * @param position its number now
   * @param to its number when all moves are made; absent where it does not move
   * @param switchTo absent where it is on or off as the list says
   * @param heldFast whether it is kept here against the list
   */
  public record EntryView(
      int number,
      String id,
      String name,
      String version,
      String section,
      String note,
      boolean ticked,
      @MayBeAbsent Long mod,
      @MayBeAbsent String hereVersion,
      boolean otherVersion,
      @MayBeAbsent Long inLibrary,
      @MayBeAbsent Integer position,
      @MayBeAbsent Integer to,
      @MayBeAbsent Boolean switchTo,
      boolean heldFast) {
    boolean away() {
      return mod == null || otherVersion || to != null || switchTo != null;
    }
  }

  /** What is here and the list does not name. */
  public record ExtraView(long mod, String name, int position, boolean on) {}

  /** The note of an entry is done, or not. */
  public record TickRequest(int number, boolean ticked) {}

  public ListSummary summary() {
    int away = (int) entries.stream().filter(EntryView::away).count();
    return new ListSummary(id, title, at, entries.size(), away);
  }
}
