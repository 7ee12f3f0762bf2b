package ironing.server.layers;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.layers.PlacementRule;
import ironing.core.loadorder.LoadOrder;
import ironing.core.order.Ordering;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Arrangement.Section;
import ironing.core.picture.Sections;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.OpenWorkspaces.Origin;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;

/** Changes of the install order, each of which can be asked what it would do before it is done. */
@Component
public class Layers {
  private static final int LONGEST_NAME = 80;
  private final OpenWorkspaces workspaces;

  Layers(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /** A change in words and as a function; the function refuses what makes no sense. */
  private record Step(Origin origin, String said, Function<OpenWorkspace, Arrangement> change) {
    Step(String said, Function<OpenWorkspace, Arrangement> change) {
      this(Origin.USER, said, change);
    }
  }

  private static Step ofLayers(String said, UnaryOperator<List<Layer>> change) {
    return new Step(said, b -> withLayers(b, change.apply(b.picture().arrangement().layers())));
  }

  /**
   * Puts layers at a place, keeping their order among themselves.
   *
   * @param to the number that the lowest of them is to have, from 1
   */
  DifferenceView move(long workspace, Expected expected, List<Long> mods, int to) {
    OpenWorkspace open = workspaces.get(workspace);
    Set<Long> moving = known(open, mods);
    return apply(
        workspace,
        expected,
        ofLayers("Moved " + what(open, mods), layers -> Sections.moved(layers, moving, to - 1)));
  }

  DifferenceView switchTo(long workspace, Expected expected, List<Long> mods, boolean on) {
    OpenWorkspace open = workspaces.get(workspace);
    Set<Long> switched = known(open, mods);
    return apply(
        workspace,
        expected,
        ofLayers(
            (on ? "Switched on " : "Switched off ") + what(open, mods),
            layers ->
                layers.stream().map(l -> switched.contains(l.mod()) ? l.withOn(on) : l).toList()));
  }

  /** Marks layers as kept here, or no longer: no suggestion moves them. */
  DifferenceView keep(long workspace, Expected expected, List<Long> mods, boolean kept) {
    OpenWorkspace open = workspaces.get(workspace);
    Set<Long> marked = known(open, mods);
    return apply(
        workspace,
        expected,
        ofLayers(
            (kept ? "Kept here: " : "No longer kept here: ") + what(open, mods),
            layers ->
                layers.stream()
                    .map(l -> marked.contains(l.mod()) ? l.withKept(kept) : l)
                    .toList()));
  }

  /** Sets the whole order, from the lowest layer on; every mod must be in it once. */
  DifferenceView set(long workspace, Expected expected, List<Layer> order) {
    OpenWorkspace open = workspaces.get(workspace);
    refuseOtherThanAll(open, order);
    return apply(
        workspace,
        expected,
        ofLayers(
            "Set the order of all layers",
            layers -> {
              Map<Long, Layer> own = new HashMap<>();
              for (Layer l : layers) own.put(l.mod(), l);
              return Sections.settled(
                  order.stream().map(l -> own.get(l.mod()).withOn(l.on())).toList());
            }));
  }

  /**
   * Gathers layers into a section.
   *
   * @param section the section, or empty for a new one of that name
   */
  DifferenceView gather(
      long workspace, Expected expected, Optional<Long> section, String name, List<Long> mods) {
    OpenWorkspace open = workspaces.get(workspace);
    Set<Long> gathered = known(open, mods);
    List<Section> sections = open.picture().arrangement().sections();
    long id = section.orElse(1 + sections.stream().mapToLong(Section::id).max().orElse(0));
    String title = section.isPresent() ? section(open, id).name() : goodName(name);
    return apply(
        workspace,
        expected,
        new Step(
            "Put " + what(open, mods) + " into the section “" + title + "”",
            b -> {
              Arrangement now = b.picture().arrangement();
              List<Section> all = new ArrayList<>(now.sections());
              if (section.isEmpty()) all.add(new Section(id, title));
              return inOrder(b, now.withLayers(Sections.gathered(now.layers(), gathered, id), all));
            }));
  }

  DifferenceView renameSection(long workspace, Expected expected, long id, String name) {
    OpenWorkspace open = workspaces.get(workspace);
    Section was = section(open, id);
    String title = goodName(name);
    return apply(
        workspace,
        expected,
        new Step(
            "Renamed the section “" + was.name() + "” to “" + title + "”",
            b -> {
              Arrangement now = b.picture().arrangement();
              return now.withLayers(
                  now.layers(),
                  now.sections().stream()
                      .map(s -> s.id() == id ? new Section(id, title) : s)
                      .toList());
            }));
  }

  /**
   * Takes layers out of their sections; they stay where they are as far as the section can close.
   */
  DifferenceView leaveSections(long workspace, Expected expected, String said, List<Long> mods) {
    Set<Long> leaving = known(workspaces.get(workspace), mods);
    return apply(
        workspace,
        expected,
        ofLayers(
            said,
            layers ->
                Sections.settled(
                    layers.stream()
                        .map(l -> leaving.contains(l.mod()) ? l.withSection(0) : l)
                        .toList())));
  }

  /** The layers of a section, the lowest first. */
  List<Long> membersOf(long workspace, long id) {
    OpenWorkspace open = workspaces.get(workspace);
    section(open, id);
    return open.picture().arrangement().layers().stream()
        .filter(l -> l.section() == id)
        .map(Layer::mod)
        .toList();
  }

  Section section(OpenWorkspace open, long id) {
    return open.picture().arrangement().sections().stream()
        .filter(s -> s.id() == id)
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "Section " + id,
                    "There is no such section in this profile.",
                    "Choose one from the list of layers."));
  }

  private static String goodName(String asked) {
    String name = asked == null ? "" : asked.strip();
    if (!name.isEmpty() && name.length() <= LONGEST_NAME) return name;
    throw IroningException.of(
        "bad-name",
        "The name of the section",
        name.isEmpty() ? "It is empty." : "It is longer than " + LONGEST_NAME + " letters.",
        "Give the section a name of one to " + LONGEST_NAME + " letters.");
  }

  /**
   * Puts the layers into an order that somebody has worked out.
   *
   * @param order by strand, every one once
   */
  public DifferenceView arrange(
      long workspace,
      Expected expected,
      Origin origin,
      String said,
      Function<OpenWorkspace, List<Long>> order) {
    return arrangeAndSwitch(workspace, expected, origin, said, order, b -> Map.of());
  }

  /**
   * The same, and switches layers in the same step.
   *
   * @param switches by mod
   */
  public DifferenceView arrangeAndSwitch(
      long workspace,
      Expected expected,
      Origin origin,
      String said,
      Function<OpenWorkspace, List<Long>> order,
      Function<OpenWorkspace, Map<Long, Boolean>> switches) {
    return apply(
        workspace,
        expected,
        new Step(
            origin,
            said,
            b -> {
              Map<Long, Boolean> on = switches.apply(b);
              return withLayers(
                  b,
                  inSections(b, order.apply(b)).stream()
                      .map(l -> l.withOn(on.getOrDefault(l.mod(), l.on())))
                      .toList());
            }));
  }

  /**
   * The same, and takes the rulings back that the order makes needless.
   *
   * @param needless of the open workspace as it was: the places of the rulings
   */
  public DifferenceView arrangeWithout(
      long workspace,
      Expected expected,
      String said,
      Function<OpenWorkspace, List<Long>> order,
      Function<OpenWorkspace, Set<String>> needless) {
    return apply(
        workspace,
        expected,
        new Step(
            Origin.PROPOSAL,
            said,
            b -> {
              Set<String> gone = needless.apply(b);
              Arrangement next = withLayers(b, inSections(b, order.apply(b)));
              return next.withRulings(
                  next.rulings().stream().filter(r -> !gone.contains(r.at())).toList());
            }));
  }

  /**
   * Each layer that moves is moved for itself, so that it joins and leaves sections as if by hand.
   */
  private static List<Layer> inSections(OpenWorkspace open, List<Long> order) {
    Map<Long, Layer> byStrand = new LinkedHashMap<>();
    for (Layer l : open.picture().arrangement().layers())
      byStrand.put(open.mods().get(l.mod()).strand(), l);
    List<Layer> layers = new ArrayList<>(byStrand.values());
    List<Long> mods = order.stream().map(s -> byStrand.get(s).mod()).toList();
    for (Ordering.Move<Long> m : Ordering.moves(layers.stream().map(Layer::mod).toList(), mods)) {
      int below = 0;
      Set<Long> under = new HashSet<>(mods.subList(0, m.to()));
      // behind the highest of those that are to be below it
      for (int i = 0, rest = 0; i < layers.size(); i++) {
        if (layers.get(i).mod() == m.item()) continue;
        rest++;
        if (under.contains(layers.get(i).mod())) below = rest;
      }
      layers = Sections.moved(layers, Set.of(m.item()), below);
    }
    Map<Long, Layer> settled = new HashMap<>();
    for (Layer l : layers) settled.put(l.mod(), l);
    return Sections.settled(mods.stream().map(settled::get).toList());
  }

  /** Changes the user’s rules of placement. */
  public DifferenceView rules(
      long workspace, Expected expected, String said, UnaryOperator<List<PlacementRule>> change) {
    return apply(
        workspace,
        expected,
        new Step(
            said,
            b -> {
              Arrangement now = b.picture().arrangement();
              return now.withRules(change.apply(now.rules()));
            }));
  }

  /**
   * Changes the rulings.
   *
   * @param said what was done, in words for the timeline
   */
  public DifferenceView rulings(
      long workspace, Expected expected, String said, UnaryOperator<List<Ruling>> change) {
    return apply(
        workspace,
        expected,
        new Step(
            said,
            b -> {
              Arrangement now = b.picture().arrangement();
              return inOrder(b, now.withRulings(change.apply(now.rulings())));
            }));
  }

  private static String what(OpenWorkspace open, List<Long> mods) {
    return mods.size() == 1 ? "“" + open.nameOf(mods.get(0)) + "”" : mods.size() + " layers";
  }

  private DifferenceView apply(long workspace, Expected expected, Step step) {
    return DifferenceView.of(
        workspaces.change(workspace, expected, step.origin(), b -> step.said(), step.change()));
  }

  private static Arrangement withLayers(OpenWorkspace open, List<Layer> layers) {
    Arrangement now = open.picture().arrangement();
    return layers.equals(now.layers()) ? now : inOrder(open, now.withLayers(layers));
  }

  /**
   * The same with the plugins in the order in which they load now: a place in the install order
   * says nothing about records.
   */
  private static Arrangement inOrder(OpenWorkspace open, Arrangement next) {
    LoadOrder order = open.picture().loadOrder();
    return next.withPlugins(order.merged(open.picture().arrangement().plugins(), order.asWishes()));
  }

  private static Set<Long> known(OpenWorkspace open, List<Long> mods) {
    Set<Long> layers = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers()) layers.add(l.mod());
    List<Problem> problems = new ArrayList<>();
    for (long m : mods) if (!layers.contains(m)) problems.add(unknown(m));
    if (mods.isEmpty()) {
      problems.add(
          new Problem("order-incomplete", "The request", "It names no mod.", "Name at least one."));
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
    return new HashSet<>(mods);
  }

  private static void refuseOtherThanAll(OpenWorkspace open, List<Layer> order) {
    Set<Long> left = new LinkedHashSet<>();
    for (Layer l : open.picture().arrangement().layers()) left.add(l.mod());
    List<Problem> problems = new ArrayList<>();
    Set<Long> seen = new HashSet<>();
    for (Layer l : order) {
      if (!seen.add(l.mod())) {
        problems.add(
            new Problem(
                "order-doubled",
                open.nameOf(l.mod()),
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
              open.nameOf(m),
              "It is missing from the order.",
              "Name every mod, those that are switched off too."));
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
