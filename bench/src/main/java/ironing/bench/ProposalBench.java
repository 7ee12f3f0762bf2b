package ironing.bench;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Found;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.loadorder.LoadRule;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.loadorder.PluginFacts;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes;
import ironing.core.plugin.Plugin.Header;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.jgrapht.graph.DefaultDirectedGraph;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.traverse.TopologicalOrderIterator;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * The load order at 4,000 plugins with 40,000 rules, a quarter of them masters: the whole proposal
 * with its explanations; whether there is an order at all, beside JGraphT’s topological iterator
 * building and walking the same graph; a move looked over anew. Medians, as targets are of them.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgs = "-Xmx1g")
public class ProposalBench {
  private static final int PLUGINS = 4_000, MASTERS = 10_000, RULES = 30_000;
  private static final GameDefinition GAME =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: plain
              title: Plain
              mounts: [ { id: data, at: "data", holds: [ "*.plug" ] } ]
              plugins: { match: "*.plug", mount: data, own: [ ] }
              """)
          .value();

  /** How many plugins stand where they should not. */
  @Param({"40", "200"})
  public int displaced;

  private final Random random = new Random(5);
  private List<Found> found;
  private LoadOrder order;
  private List<LoadRule> rules;
  private List<String> present;
  private List<Constraint<String>> constraints;

  @Setup
  public void world() {
    List<List<String>> masters = new ArrayList<>();
    for (int i = 0; i < PLUGINS; i++) masters.add(new ArrayList<>());
    for (int i = 0; i < MASTERS; i++) {
      int later = 1 + random.nextInt(PLUGINS - 1), earlier = random.nextInt(later);
      if (!masters.get(later).contains(name(earlier))) masters.get(later).add(name(earlier));
    }
    found = new ArrayList<>();
    List<String> names = new ArrayList<>();
    for (int i = 0; i < PLUGINS; i++) {
      names.add(name(i));
      found.add(
          new Found(
              name(i),
              1 + i % 500,
              false,
              "",
              Optional.of(Header.of(5, masters.get(i), 1)),
              Optional.empty(),
              name(i),
              Optional.empty()));
    }
    for (int i = 0; i < displaced; i++)
      names.add(random.nextInt(PLUGINS), names.remove(random.nextInt(PLUGINS)));
    order = LoadOrder.of(GAME, found, names.stream().map(n -> new Wish(n, true)).toList());
    rules = new ArrayList<>();
    for (int i = 0; i < RULES; i++) {
      int later = 1 + random.nextInt(PLUGINS - 1), earlier = random.nextInt(later);
      rules.add(
          new LoadRule(
              "rule " + i,
              i % 2 == 0 ? Kind.AFTER : Kind.BEFORE,
              Who.named(name(i % 2 == 0 ? later : earlier)),
              Who.named(name(i % 2 == 0 ? earlier : later)),
              "its card asks for it",
              "a card",
              Strength.CARD));
    }
    present = order.entries().stream().map(LoadOrder.Entry::name).toList();
    constraints = new ArrayList<>();
    for (Found f : found)
      for (String m : f.masters()) constraints.add(new Constraint<>(m, f.name(), "", ""));
    for (LoadRule r : rules) {
      boolean after = r.kind() == Kind.AFTER;
      constraints.add(
          new Constraint<>(
              (after ? r.other() : r.plugin()).text(),
              (after ? r.plugin() : r.other()).text(),
              "",
              ""));
    }
  }

  private static String name(int i) {
    return "Plugin " + i + ".plug";
  }

  @Benchmark
  public LoadOrderProposal proposal() {
    LoadOrderProposal p = LoadOrderProposal.propose(order, rules, PluginFacts.NONE);
    if (!(p.outcome() instanceof Outcome.Sorted<String> s) || s.moves().isEmpty())
      throw new IllegalStateException("there is an order, and something stands wrong");
    return p;
  }

  @Benchmark
  public Outcome<String> feasible() {
    return FewestMoves.feasible(present, Wishes.of(constraints));
  }

  @Benchmark
  public int jgrapht() {
    DefaultDirectedGraph<String, DefaultEdge> graph = new DefaultDirectedGraph<>(DefaultEdge.class);
    present.forEach(graph::addVertex);
    for (Constraint<String> c : constraints) graph.addEdge(c.earlier(), c.later());
    int n = 0;
    for (TopologicalOrderIterator<String, DefaultEdge> i = new TopologicalOrderIterator<>(graph);
        i.hasNext();
        i.next()) n++;
    return n;
  }

  @Benchmark
  public int moveLookedOver() {
    List<Wish> wishes = new ArrayList<>(order.asWishes());
    wishes.add(random.nextInt(PLUGINS), wishes.remove(random.nextInt(PLUGINS)));
    LoadOrder next = LoadOrder.of(GAME, found, wishes);
    return LoadOrderCheck.troubles(GAME, Optional.of("1"), next, pack -> true).size();
  }
}
