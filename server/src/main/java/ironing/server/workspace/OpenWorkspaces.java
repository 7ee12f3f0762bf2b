package ironing.server.workspace;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.picture.Arrangement;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaceMapper.ChangeRow;
import ironing.server.workspace.OpenWorkspaceMapper.ProfileRow;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Gives out open workspaces and changes them: first in the database, then in memory, then every
 * open page is told. After a change of the library the next open workspace is made from the last
 * one and the rows that have changed since.
 *
 * <p>Threads: reads never wait for writes, but for the first one after the library has changed;
 * writes of one workspace come one after another.
 */
@Component
public class OpenWorkspaces {
  private final OpenWorkspaceMapper db;
  private final OpenWorkspaceStore store;
  private final FormerContents former;
  private final TransactionTemplate transaction;
  private final Json json;
  private final Events events;
  private final Memory memory;
  private final Memory.Kept<Known> known;
  private final Map<Long, Object> locks = new ConcurrentHashMap<>();

  /**
   * @param loaded what the next open workspace is made from
   * @param isNow whether its open workspace is of today
   */
  private record Known(OpenWorkspaceStore.Loaded loaded, boolean isNow) {}

  OpenWorkspaces(
      OpenWorkspaceMapper db,
      OpenWorkspaceStore store,
      FormerContents former,
      TransactionTemplate transaction,
      Memory memory,
      Json json,
      Events events) {
    this.db = db;
    this.store = store;
    this.former = former;
    this.transaction = transaction;
    this.json = json;
    this.memory = memory;
    this.known = memory.keeping(k -> k.loaded().bytes());
    this.events = events;
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public OpenWorkspace get(long workspace) {
    Optional<OpenWorkspace> there = inMemory(workspace);
    if (there.isPresent()) return there.get();
    synchronized (lock(workspace)) {
      return known
          .of(
              workspace,
              k ->
                  k != null && k.isNow()
                      ? k
                      : new Known(store.load(workspace, k == null ? null : k.loaded()), true))
          .loaded()
          .open();
    }
  }

  private Optional<OpenWorkspace> inMemory(long workspace) {
    return known.peek(workspace).filter(Known::isNow).map(k -> k.loaded().open());
  }

  /** The numbers of all workspaces. */
  public List<Long> all() {
    return db.workspaces();
  }

  /** The definition alone: it costs nothing when the files of the workspace are not in memory. */
  public GameDefinition game(long workspace) {
    return inMemory(workspace)
        .map(OpenWorkspace::game)
        .orElseGet(() -> store.definition(workspace));
  }

  /**
   * Where its game lies; costs as little as {@link #game}.
   *
   * @throws IroningException with code {@code not-found}
   */
  public Site site(long workspace) {
    return store.site(workspace);
  }

  /** Who made a change. */
  public enum Origin {
    USER,
    /** A suggestion that the user has taken. */
    PROPOSAL,
    /** A list that the user follows. */
    IMPORT;

    String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** The user changes the arrangement. */
  public Changed change(
      long workspace, Expected expected, String said, Function<OpenWorkspace, Arrangement> change) {
    return change(workspace, expected, Origin.USER, b -> said, change);
  }

  /** The same where the words depend on what there was. */
  public Changed change(
      long workspace,
      Expected expected,
      Function<OpenWorkspace, String> said,
      Function<OpenWorkspace, Arrangement> change) {
    return change(workspace, expected, Origin.USER, said, change);
  }

  /**
   * Changes the arrangement, or tells what changing it would come to: the two are the same
   * computation.
   *
   * @param said what is done, in words for the timeline; asked before the change is written
   * @param change refuses what makes no sense
   * @throws IroningException with code {@code changed-meanwhile} when the arrangement is no longer
   *     the expected one
   */
  public Changed change(
      long workspace,
      Expected expected,
      Origin origin,
      Function<OpenWorkspace, String> said,
      Function<OpenWorkspace, Arrangement> change) {
    if (expected.dry()) {
      OpenWorkspace before = get(workspace);
      return Changed.as(before, change.apply(before));
    }
    synchronized (lock(workspace)) {
      OpenWorkspace before = get(workspace);
      if (!expected.admits(before.revision())) throw changedMeanwhile();
      Arrangement next = change.apply(before);
      if (next.equals(before.picture().arrangement())) return new Changed(before, before);
      OpenWorkspace after = before.with(before.picture().rearranged(next), before.revision() + 1);
      inTransaction(
          workspace,
          () -> {
            if (db.advance(workspace, before.revision()) == 0) throw changedMeanwhile();
            store.write(before, next);
            db.dropUndone(before.profile());
            noteChange(before, origin, said.apply(before), next);
          });
      return new Changed(before, put(after, "arrangement"));
    }
  }

  // a change holds only the parts that it touched: the rest may go on changing before it is undone
  private void noteChange(OpenWorkspace before, Origin origin, String said, Arrangement next) {
    Arrangement present = before.picture().arrangement();
    db.addChange(
        before.workspace(),
        before.profile(),
        origin.word(),
        said,
        json.write(Parts.differing(present, next)),
        json.write(Parts.differing(next, present)));
  }

  /** What would be undone and done again next, in the words of the timeline. */
  public record Steps(Optional<String> undo, Optional<String> redo) {}

  public Steps steps(long workspace) {
    long profile = get(workspace).profile();
    return new Steps(
        Optional.ofNullable(db.nextToUndo(profile)).map(ChangeRow::said),
        Optional.ofNullable(db.nextToRedo(profile)).map(ChangeRow::said));
  }

  /**
   * One change that was undone or done again.
   *
   * @param said what it was, in the words of the timeline
   */
  public record Stepped(OpenWorkspace open, String said) {}

  /** Takes the last change of the arrangement back. Mods that came since stay, on top. */
  public Stepped undo(long workspace) {
    return step(workspace, true);
  }

  /** Does again what was undone last. */
  public Stepped redo(long workspace) {
    return step(workspace, false);
  }

  private Stepped step(long workspace, boolean back) {
    synchronized (lock(workspace)) {
      OpenWorkspace before = get(workspace);
      ChangeRow row = back ? db.nextToUndo(before.profile()) : db.nextToRedo(before.profile());
      if (row != null && row.swapFormer() != null) return exchanged(before, row, back);
      if (row == null) {
        throw IroningException.of(
            "nothing-to-undo",
            before.title(),
            back ? "Nothing is left to undo." : "Nothing was undone that could be redone.",
            "Go on as things are.");
      }
      Arrangement present = before.picture().arrangement();
      Arrangement told = json.read(back ? row.before() : row.after(), Parts.class).on(present);
      Arrangement next = OpenWorkspaceStore.fitted(told, present.layers(), before.mods());
      OpenWorkspace after = before.with(before.picture().rearranged(next), before.revision() + 1);
      inTransaction(
          workspace,
          () -> {
            if (db.advance(workspace, before.revision()) == 0) throw changedMeanwhile();
            store.write(before, next);
            db.setState(row.id(), back ? "undone" : "done");
          });
      return new Stepped(put(after, "arrangement"), row.said());
    }
  }

  private Stepped exchanged(OpenWorkspace before, ChangeRow row, boolean back) {
    long workspace = before.workspace();
    inTransaction(
        workspace,
        () -> {
          former.exchange(row.swapMod(), row.swapFormer());
          db.advanceWhatever(workspace);
          db.setState(row.id(), back ? "undone" : "done");
        });
    changed(workspace);
    events.tell(workspace, "library", Map.of("mod", row.swapMod()));
    return new Stepped(get(workspace), row.said());
  }

  /**
   * Changes the library. What is in memory is made anew at the next look, so that many changes in a
   * row cost one load.
   *
   * @param said what is done, in words for the timeline
   * @param work done inside the transaction; gives the mod that it is about
   * @return that mod
   */
  public long changeLibrary(long workspace, String said, LibraryChange change, LongSupplier work) {
    synchronized (lock(workspace)) {
      OpenWorkspace before = change instanceof LibraryChange.OfLayers ? get(workspace) : null;
      long mod =
          inTransaction(
              workspace,
              () -> {
                long given = work.getAsLong();
                db.advanceWhatever(workspace);
                return noted(before, workspace, said, change, given);
              });
      changed(workspace);
      tellLibrary(workspace, mod);
      return mod;
    }
  }

  private long noted(
      OpenWorkspace before, long workspace, String said, LibraryChange change, long given) {
    ProfileRow profile = db.profile(workspace);
    if (change instanceof LibraryChange.OtherContent content) {
      db.dropUndone(profile.id());
      db.addSwap(workspace, profile.id(), Origin.USER.word(), said, content.mod(), given);
      return content.mod();
    }
    if (change instanceof LibraryChange.OfLayers layers) {
      Arrangement next = layers.after(before.picture().arrangement(), given);
      store.write(before, next);
      if (change instanceof LibraryChange.Instead) {
        db.dropUndone(before.profile());
        noteChange(before, Origin.USER, said, next);
        return given;
      }
    }
    if (change instanceof LibraryChange.OnTop top) store.addTopLayer(profile, given, top.on());
    noteLibrary(workspace, profile.id(), said);
    return given;
  }

  /** Tells every open page that what is said of a mod has changed. */
  public void tellLibrary(long workspace, long mod) {
    events.tell(workspace, "library", Map.of("mod", mod));
  }

  private void noteLibrary(long workspace, long profile, String said) {
    db.addChange(workspace, profile, Origin.USER.word(), said, null, null);
  }

  /**
   * Writes into the timeline what changes nothing in the profile in use.
   *
   * @param kind of the event that open pages are told
   */
  public void note(long workspace, String kind, String said, Runnable work) {
    synchronized (lock(workspace)) {
      inTransaction(
          workspace,
          () -> {
            work.run();
            noteLibrary(workspace, db.profile(workspace).id(), said);
          });
      events.tell(workspace, kind, Map.of());
    }
  }

  /**
   * Changes which profile is in use, or what it is called. The files of the mods are not read
   * again.
   */
  OpenWorkspace changeProfile(long workspace, String said, Runnable work) {
    synchronized (lock(workspace)) {
      OpenWorkspace before = get(workspace);
      inTransaction(
          workspace,
          () -> {
            work.run();
            db.advanceWhatever(workspace);
            noteLibrary(workspace, db.profile(workspace).id(), said);
          });
      return put(store.profileOf(before), "profiles");
    }
  }

  /** The arrangement of the profile in use as it was right after a change, by its number. */
  public Arrangement at(OpenWorkspace open, long change) {
    Arrangement now = open.picture().arrangement();
    for (ChangeRow row : db.doneSince(open.profile(), change))
      now = json.read(row.before(), Parts.class).on(now);
    return OpenWorkspaceStore.fitted(now, open.picture().arrangement().layers(), open.mods());
  }

  /**
   * Drops something that is written down and cannot be read.
   *
   * @throws IroningException with code {@code not-found}
   */
  public void drop(long workspace, String key) {
    synchronized (lock(workspace)) {
      OpenWorkspace open = get(workspace);
      Unreadable gone =
          open.unreadable().stream()
              .filter(u -> u.key().equals(key))
              .findFirst()
              .orElseThrow(
                  () ->
                      IroningException.of(
                          "not-found",
                          key,
                          "Nothing of this name is unreadable.",
                          "Choose one from the wrinkles."));
      changeLibrary(
          workspace,
          "Dropped what could not be read: " + gone.what(),
          LibraryChange.BESIDE,
          () -> {
            store.drop(open, gone);
            return gone.mod() == null ? Holdings.GAME : gone.mod();
          });
    }
  }

  /**
   * Makes a workspace be no more.
   *
   * @param work that deletes its row
   */
  public void remove(long workspace, Runnable work) {
    synchronized (lock(workspace)) {
      inTransaction(workspace, work);
      memory.forget(workspace);
    }
  }

  /** What was read of all workspaces may be read otherwise now: a format came or went. */
  public void readAgain() {
    for (long workspace : all()) {
      synchronized (lock(workspace)) {
        memory.forget(workspace);
      }
    }
  }

  /** What is in memory is no longer of today. */
  private void changed(long workspace) {
    known.of(workspace, k -> k == null ? null : new Known(k.loaded(), false));
  }

  private OpenWorkspace put(OpenWorkspace after, String kind) {
    known.of(after.workspace(), k -> k == null ? null : new Known(k.loaded().with(after), true));
    events.tell(after.workspace(), kind, Map.of("revision", after.revision()));
    return after;
  }

  /**
   * Does work in a transaction. When it fails nobody knows whether it was committed, so what is in
   * memory is read anew at the next look.
   */
  private <T> T inTransaction(long workspace, Supplier<T> work) {
    try {
      return transaction.execute(t -> work.get());
    } catch (RuntimeException failed) {
      changed(workspace);
      throw failed;
    }
  }

  private void inTransaction(long workspace, Runnable work) {
    inTransaction(
        workspace,
        () -> {
          work.run();
          return null;
        });
  }

  private static IroningException changedMeanwhile() {
    return IroningException.of(
        "changed-meanwhile",
        "The order",
        "It was changed meanwhile, in another tab or by a script.",
        "Look at it as it is now, and do it again.");
  }

  private Object lock(long workspace) {
    return locks.computeIfAbsent(workspace, w -> new Object());
  }
}
