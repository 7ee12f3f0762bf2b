package ironing.server.lists;

import com.fasterxml.jackson.core.type.TypeReference;
import ironing.core.IroningException;
import ironing.core.lists.ListReader;
import ironing.core.lists.PublishedList;
import ironing.core.lists.PublishedList.Kind;
import ironing.server.lists.FollowedListMapper.ListRow;
import ironing.server.lists.FollowedListMapper.NewList;
import ironing.server.loadorder.FollowedOrders;
import ironing.server.loadorder.FollowedOrders.FollowedOrder;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** The published lists that a workspace follows, of mods and of plugins. */
@Component
public class FollowedLists implements FollowedOrders {
  private static final int LONGEST_REASON = 500;
  private final FollowedListMapper db;
  private final OpenWorkspaces workspaces;
  private final Events events;
  private final Json json;

  FollowedLists(FollowedListMapper db, OpenWorkspaces workspaces, Events events, Json json) {
    this.db = db;
    this.workspaces = workspaces;
    this.events = events;
    this.json = json;
  }

  /**
   * @param ticked the numbers of entries whose notes are done, from 1
   * @param departures by the number of an entry, from 1, why it is otherwise here; empty texts
   *     where the user gave no reason
   * @param gone whether it is no longer followed
   */
  public record Followed(
      long id,
      String title,
      String at,
      PublishedList list,
      Set<Integer> ticked,
      Map<Integer, String> departures,
      boolean gone) {}

  /**
   * Brings a list in; nothing else is changed by it.
   *
   * @throws IroningException with code {@code bad-list}
   */
  public Followed add(long workspace, String name, byte[] file, Kind kind) {
    PublishedList list = ListReader.read(name, file);
    if (list.kind() != kind) {
      boolean plugins = list.kind() == Kind.PLUGINS;
      throw IroningException.of(
          "bad-list",
          name,
          plugins ? "It is an order of plugins." : "It is an order of mods.",
          plugins ? "Bring it in under Load order." : "Bring it in under Layers.");
    }
    NewList row = new NewList();
    workspaces.note(
        workspace,
        "lists",
        "Brought in the list “" + list.title() + "”",
        () -> db.add(workspace, list.title(), json.write(list), row));
    return get(workspace, row.id(), kind);
  }

  /** Those that are followed now, the newest first. */
  public List<Followed> all(long workspace, Kind kind) {
    return db.all(workspace).stream()
        .map(this::followed)
        .filter(f -> !f.gone() && f.list().kind() == kind)
        .toList();
  }

  @Override
  public List<FollowedOrder> ordersOf(long workspace) {
    return all(workspace, Kind.PLUGINS).stream()
        .map(f -> new FollowedOrder(f.id(), f.title(), f.list()))
        .toList();
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public Followed get(long workspace, long id, Kind kind) {
    workspaces.get(workspace);
    return db.all(workspace).stream()
        .filter(r -> r.id() == id)
        .map(this::followed)
        .filter(f -> f.list().kind() == kind)
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "List " + id,
                    "There is no such list in this workspace.",
                    "Choose one of those that are followed."));
  }

  private Followed followed(ListRow row) {
    return new Followed(
        row.id(),
        row.title(),
        row.at(),
        json.read(row.content(), PublishedList.class),
        new TreeSet<>(List.of(json.read(row.ticked(), Integer[].class))),
        json.read(row.departures(), new TypeReference<TreeMap<Integer, String>>() {}),
        row.isDeleted());
  }

  /** Follows a list no longer, or again. */
  public void setGone(long workspace, Followed list, boolean gone) {
    if (list.gone() == gone) return;
    workspaces.note(
        workspace,
        "lists",
        (gone ? "No longer follows the list “" : "Follows the list again: “") + list.title() + "”",
        () -> db.delete(list.id(), gone));
  }

  /**
   * Remembers that an entry is otherwise here, and shall be; or takes that back.
   *
   * @param reason why, may be empty; none takes it back
   * @throws IroningException with code {@code not-found}, or {@code bad-reason} where it is too
   *     long
   */
  public void depart(long workspace, Followed list, int number, Optional<String> reason) {
    requireEntry(list, number);
    if (reason.filter(r -> r.length() > LONGEST_REASON).isPresent())
      throw IroningException.of(
          "bad-reason",
          "The reason",
          "It is longer than " + LONGEST_REASON + " letters.",
          "Say it in a sentence; notes have room for more.");
    Map<Integer, String> next = new TreeMap<>(list.departures());
    if (reason.isPresent()) next.put(number, reason.get().strip());
    else next.remove(number);
    String what = list.list().entries().get(number - 1).label();
    workspaces.note(
        workspace,
        "lists",
        (reason.isPresent() ? "Departs from the list “" : "Follows again in the list “")
            + list.title()
            + "”: "
            + what,
        () -> db.depart(list.id(), json.write(next)));
  }

  private static void requireEntry(Followed list, int number) {
    int entries = list.list().entries().size();
    if (number >= 1 && number <= entries) return;
    throw IroningException.of(
        "not-found",
        "Entry " + number,
        "The list has entries from 1 to " + entries + ".",
        "Take the number from the list.");
  }

  /** Ticks the note of an entry off, or takes the tick back. */
  public void tick(long workspace, Followed list, int number, boolean ticked) {
    requireEntry(list, number);
    Set<Integer> next = new TreeSet<>(list.ticked());
    if (ticked) next.add(number);
    else next.remove(number);
    db.tick(list.id(), json.write(next));
    events.tell(workspace, "lists", Map.of());
  }
}
