package ironing.server.layers;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.loadorder.LoadOrder;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Difference;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;

/** Changes of the install order, each of which can be asked what it would do before it is done. */
@Component
class Layers {
  private final Workbenches benches;

  Layers(Workbenches benches) {
    this.benches = benches;
  }

  /** A change in words and as a function; the function refuses what makes no sense. */
  private record Step(String said, UnaryOperator<List<Layer>> change) {}

  /**
   * Puts layers at a place, keeping their order among themselves.
   *
   * @param to the number that the lowest of them is to have, from 1
   */
  DifferenceView move(long workspace, long revision, List<Long> mods, int to, boolean dryRun) {
    Bench bench = benches.get(workspace);
    Set<Long> moving = known(bench, mods);
    String what =
        mods.size() == 1 ? "“" + bench.nameOf(mods.get(0)) + "”" : mods.size() + " layers";
    return apply(
        workspace,
        revision,
        dryRun,
        new Step(
            "Moved " + what,
            layers -> {
              List<Layer> moved = layers.stream().filter(l -> moving.contains(l.mod())).toList();
              List<Layer> rest =
                  new ArrayList<>(layers.stream().filter(l -> !moving.contains(l.mod())).toList());
              rest.addAll(Math.max(0, Math.min(to - 1, rest.size())), moved);
              return rest;
            }));
  }

  DifferenceView switchTo(
      long workspace, long revision, List<Long> mods, boolean on, boolean dryRun) {
    Bench bench = benches.get(workspace);
    Set<Long> switched = known(bench, mods);
    String what =
        mods.size() == 1 ? "“" + bench.nameOf(mods.get(0)) + "”" : mods.size() + " layers";
    String said = (on ? "Switched on " : "Switched off ") + what;
    return apply(
        workspace,
        revision,
        dryRun,
        new Step(
            said,
            layers ->
                layers.stream()
                    .map(l -> switched.contains(l.mod()) ? new Layer(l.mod(), on) : l)
                    .toList()));
  }

  /** Sets the whole order, from the lowest layer on; every mod must be in it once. */
  DifferenceView set(long workspace, long revision, List<Layer> order, boolean dryRun) {
    Bench bench = benches.get(workspace);
    refuseOtherThanAll(bench, order);
    return apply(
        workspace, revision, dryRun, new Step("Set the order of all layers", layers -> order));
  }

  private DifferenceView apply(long workspace, long revision, boolean dryRun, Step step) {
    if (dryRun) {
      Bench bench = benches.get(workspace);
      Arrangement next = next(bench, step);
      Difference d = Difference.between(bench.picture(), bench.picture().rearranged(next));
      return DifferenceView.of(bench, d);
    }
    Bench[] before = new Bench[1];
    Bench after =
        benches.rearrange(
            workspace,
            revision,
            b -> step.said(),
            b -> {
              before[0] = b;
              return next(b, step);
            });
    return DifferenceView.of(after, Difference.between(before[0].picture(), after.picture()));
  }

  /**
   * The arrangement after a step. Plugins keep the order in which they load now: a place in the
   * install order says nothing about records.
   */
  private static Arrangement next(Bench bench, Step step) {
    Arrangement now = bench.picture().arrangement();
    List<Layer> layers = step.change().apply(now.layers());
    if (layers.equals(now.layers())) return now;
    LoadOrder order = bench.picture().loadOrder();
    return now.withLayers(layers).withPlugins(order.merged(now.plugins(), order.asWishes()));
  }

  private static Set<Long> known(Bench bench, List<Long> mods) {
    Set<Long> layers = new HashSet<>();
    for (Layer l : bench.picture().arrangement().layers()) layers.add(l.mod());
    List<Problem> problems = new ArrayList<>();
    for (long m : mods) if (!layers.contains(m)) problems.add(unknown(m));
    if (mods.isEmpty()) {
      problems.add(
          new Problem("order-incomplete", "The request", "It names no mod.", "Name at least one."));
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
    return new HashSet<>(mods);
  }

  private static void refuseOtherThanAll(Bench bench, List<Layer> order) {
    Set<Long> left = new LinkedHashSet<>();
    for (Layer l : bench.picture().arrangement().layers()) left.add(l.mod());
    List<Problem> problems = new ArrayList<>();
    Set<Long> seen = new HashSet<>();
    for (Layer l : order) {
      if (!seen.add(l.mod())) {
        problems.add(
            new Problem(
                "order-doubled",
                bench.nameOf(l.mod()),
                "It stands in the order twice.",
                "Name each mod once."));
      } else if (!left.remove(l.mod())) {
        problems.add(unknown(l.mod()));
      }
    }
    for (long m : left) {
      problems.add(
          new Problem(
              "order-incomplete",
              bench.nameOf(m),
              "It is missing from the order.",
              "Name every mod, those that are off too."));
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
  }

  private static Problem unknown(long mod) {
    return new Problem(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Take the numbers from the list of layers.");
  }
}
