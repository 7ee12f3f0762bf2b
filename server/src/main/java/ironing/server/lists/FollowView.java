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
   * @param away how many entries are missing here, of another version, to be switched or moved, and
   *     are no departures
   * @param departures how many entries are otherwise here, and shall be
   */
  public record ListSummary(
      long id, String title, String at, int entries, int away, int departures) {}

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
   * @param departure why it is otherwise here, and shall be; may be empty; absent where it is as
   *     the list says, or nobody has said so
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
      boolean heldFast,
      @MayBeAbsent String departure) {
    /** Whether it is here otherwise than the list says. */
    boolean differs() {
      return mod == null || otherVersion || to != null || switchTo != null;
    }

    boolean away() {
      return differs() && departure == null;
    }

    /**
     * The same with what is remembered of it; one that is as the list says departs from nothing.
     */
    EntryView with(String reason) {
      if (!differs() && !heldFast) return this;
      return new EntryView(
          number,
          id,
          name,
          version,
          section,
          note,
          ticked,
          mod,
          hereVersion,
          otherVersion,
          inLibrary,
          position,
          to,
          switchTo,
          heldFast,
          reason);
    }
  }

  /** What is here and the list does not name. */
  public record ExtraView(long mod, String name, int position, boolean on) {}

  /** The note of an entry is done, or not. */
  public record TickRequest(int number, boolean ticked) {}

  /**
   * An entry is otherwise here, and shall be.
   *
   * @param number of the entry in the list, from 1
   * @param reason why, may be empty; absent to take it back
   */
  public record DepartureRequest(int number, @MayBeAbsent String reason) {}

  public ListSummary summary() {
    int away = (int) entries.stream().filter(EntryView::away).count();
    int departures = (int) entries.stream().filter(e -> e.departure() != null).count();
    return new ListSummary(id, title, at, entries.size(), away, departures);
  }
}
