package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.picture.Arrangement;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.workbench.BenchMapper.ChangeRow;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.LongSupplier;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Gives out benches and changes them: first in the database, then in memory, then every open page
 * is told.
 *
 * <p>Threads: reads never wait for writes, but for the first one after the library has changed;
 * writes of one workspace come one after another.
 */
@Component
public class Workbenches {
  private final BenchMapper db;
  private final BenchStore store;
  private final TransactionTemplate transaction;
  private final Json json;
  private final Events events;
  private final Map<Long, Bench> benches = new ConcurrentHashMap<>();
  private final Map<Long, Object> locks = new ConcurrentHashMap<>();

  Workbenches(
      BenchMapper db, BenchStore store, TransactionTemplate transaction, Json json, Events events) {
    this.db = db;
    this.store = store;
    this.transaction = transaction;
    this.json = json;
    this.events = events;
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  public Bench get(long workspace) {
    Bench known = benches.get(workspace);
    if (known != null) return known;
    synchronized (lock(workspace)) {
      return benches.computeIfAbsent(workspace, store::load);
    }
  }

  /** The numbers of all workspaces. */
  public List<Long> all() {
    return db.workspaces();
  }

  /** The definition alone: it costs nothing when the files of the workspace are not in memory. */
  public GameDefinition game(long workspace) {
    Bench known = benches.get(workspace);
    return known != null ? known.game() : store.definition(workspace);
  }

  /**
   * Changes the arrangement.
   *
   * @param expected the revision that the caller saw
   * @param said what was done, in words for the timeline; asked before the change is written
   * @throws IroningException with code {@code changed-meanwhile} when it is no longer that one
   */
  public Bench rearrange(
      long workspace,
      long expected,
      Function<Bench, String> said,
      Function<Bench, Arrangement> change) {
    synchronized (lock(workspace)) {
      Bench before = get(workspace);
      if (expected != before.revision()) throw changedMeanwhile();
      Arrangement next = change.apply(before);
      if (next.equals(before.picture().arrangement())) return before;
      Bench after = before.with(before.picture().rearranged(next), before.revision() + 1);
      transaction.executeWithoutResult(
          t -> {
            if (db.advance(before.profile(), before.revision()) == 0) throw changedMeanwhile();
            Arrangement present = before.picture().arrangement();
            store.write(before.profile(), present, next);
            db.dropUndone(before.profile());
            db.addChange(
                before.profile(), said.apply(before), json.write(present), json.write(next));
          });
      return put(after, "arrangement");
    }
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
  public record Stepped(Bench bench, String said) {}

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
      Bench before = get(workspace);
      ChangeRow row = back ? db.nextToUndo(before.profile()) : db.nextToRedo(before.profile());
      if (row == null) {
        throw IroningException.of(
            "nothing-to-undo",
            before.title(),
            back ? "Nothing is left to undo." : "Nothing was undone that could be done again.",
            "Go on as things are.");
      }
      Arrangement told = json.read(back ? row.before() : row.after(), Arrangement.class);
      Arrangement next = fitted(told, before);
      Bench after = before.with(before.picture().rearranged(next), before.revision() + 1);
      transaction.executeWithoutResult(
          t -> {
            if (db.advance(before.profile(), before.revision()) == 0) throw changedMeanwhile();
            store.write(before.profile(), before.picture().arrangement(), next);
            db.setState(row.id(), back ? "undone" : "done");
          });
      return new Stepped(put(after, "arrangement"), row.said());
    }
  }

  /**
   * An arrangement of another day with the mods of today: gone ones left out, new ones on top. Of
   * the versions of one mod, the one of that day is taken.
   */
  private static Arrangement fitted(Arrangement told, Bench today) {
    List<Arrangement.Layer> layers = new ArrayList<>();
    Set<Long> placed = new HashSet<>();
    for (Arrangement.Layer l : told.layers()) {
      Bench.Mod m = today.mods().get(l.mod());
      if (m != null && placed.add(m.strand())) layers.add(l);
    }
    for (Arrangement.Layer l : today.picture().arrangement().layers()) {
      if (placed.add(today.mods().get(l.mod()).strand())) layers.add(l);
    }
    return told.withLayers(layers);
  }

  /**
   * Takes a change of the library in. A mod that is new is put on top and switched on. What is in
   * memory is made anew at the next look, so that many changes in a row cost one load.
   *
   * @param work done inside the transaction; gives the mod
   */
  public long changeLibrary(long workspace, String said, LongSupplier work) {
    return changeLibrary(
        workspace, said, work, (profile, changed) -> db.addTopLayer(profile, changed));
  }

  /**
   * The same for what needs no layer of its own: a version beside the one in use, a card that was
   * edited.
   */
  public long changeLibraryBeside(long workspace, String said, LongSupplier work) {
    return changeLibrary(workspace, said, work, (profile, changed) -> {});
  }

  /** Tells every open page that what is said of a mod has changed. */
  public void tellLibrary(long workspace, long mod) {
    events.tell(workspace, "library", Map.of("mod", mod));
  }

  /** What becomes of the profile when the library has changed. */
  private interface Placing {
    void of(long profile, long mod);
  }

  private long changeLibrary(long workspace, String said, LongSupplier work, Placing placing) {
    synchronized (lock(workspace)) {
      long mod =
          transaction.execute(
              t -> {
                long changed = work.getAsLong();
                long profile = db.profile(workspace).id();
                placing.of(profile, changed);
                db.advanceWhatever(profile);
                db.addChange(profile, said, null, null);
                return changed;
              });
      benches.remove(workspace);
      events.tell(workspace, "library", Map.of("mod", mod));
      return mod;
    }
  }

  /**
   * Takes a new version in and gives it the place of another: one step, which can be undone.
   *
   * @param instead the mod that has the layer now
   */
  public long changeVersion(long workspace, String said, long instead, LongSupplier work) {
    synchronized (lock(workspace)) {
      Bench before = get(workspace);
      Arrangement present = before.picture().arrangement();
      long mod =
          transaction.execute(
              t -> {
                long changed = work.getAsLong();
                Arrangement next = present.withInstead(instead, changed);
                db.advanceWhatever(before.profile());
                store.write(before.profile(), present, next);
                db.dropUndone(before.profile());
                db.addChange(before.profile(), said, json.write(present), json.write(next));
                return changed;
              });
      benches.remove(workspace);
      events.tell(workspace, "library", Map.of("mod", mod));
      return mod;
    }
  }

  /**
   * Takes a mod out of the library.
   *
   * @param heir the version that gets its layer; empty when the layer goes too
   * @param work done inside the transaction, with the layer as it was; empty when it had none
   */
  public void removeMod(
      long workspace, String said, long mod, Optional<Long> heir, Consumer<Optional<Stood>> work) {
    synchronized (lock(workspace)) {
      Bench before = get(workspace);
      Arrangement present = before.picture().arrangement();
      Optional<Stood> stood = Optional.empty();
      for (int i = 0; i < present.layers().size(); i++) {
        Arrangement.Layer l = present.layers().get(i);
        if (l.mod() == mod) stood = Optional.of(new Stood(i, l.on()));
      }
      Optional<Stood> was = stood;
      List<Arrangement.Layer> rest = new ArrayList<>();
      for (Arrangement.Layer l : present.layers()) {
        if (l.mod() != mod) rest.add(l);
        else heir.ifPresent(h -> rest.add(new Arrangement.Layer(h, l.on())));
      }
      transaction.executeWithoutResult(
          t -> {
            work.accept(was);
            db.advanceWhatever(before.profile());
            store.write(before.profile(), present, present.withLayers(rest));
            db.addChange(before.profile(), said, null, null);
          });
      benches.remove(workspace);
      events.tell(workspace, "library", Map.of("mod", mod));
    }
  }

  /** Brings a mod back to the library, to the layer that it had. */
  public void returnMod(
      long workspace, String said, long mod, Optional<Stood> stood, Runnable work) {
    synchronized (lock(workspace)) {
      Bench before = get(workspace);
      Arrangement present = before.picture().arrangement();
      List<Arrangement.Layer> layers = new ArrayList<>(present.layers());
      stood.ifPresent(
          s -> layers.add(Math.min(s.place(), layers.size()), new Arrangement.Layer(mod, s.on())));
      transaction.executeWithoutResult(
          t -> {
            work.run();
            db.advanceWhatever(before.profile());
            store.write(before.profile(), present, present.withLayers(layers));
            db.addChange(before.profile(), said, null, null);
          });
      benches.remove(workspace);
      events.tell(workspace, "library", Map.of("mod", mod));
    }
  }

  /**
   * The layer of a mod that left.
   *
   * @param place how many layers lay below it
   */
  public record Stood(int place, boolean on) {}

  private Bench put(Bench after, String kind) {
    benches.put(after.workspace(), after);
    events.tell(after.workspace(), kind, Map.of("revision", after.revision()));
    return after;
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
