package ironing.core.loadorder;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Found;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderProposal.Exit;
import ironing.core.loadorder.LoadRule.By;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Strength;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.loadorder.RuleBook.Treatment;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.WaysOut;
import ironing.core.plugin.Plugin.Header;
import ironing.core.testkit.Orders;
import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.jgrapht.Graph;
import org.jgrapht.alg.cycle.CycleDetector;
import org.jgrapht.graph.DefaultDirectedGraph;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.traverse.BreadthFirstIterator;
import org.jgrapht.traverse.TopologicalOrderIterator;
import org.junit.jupiter.api.Test;

class LoadOrderProposalTest {
  private static final PluginFacts TAGGED =
      new PluginFacts() {
        @Override
        public Collection<String> tags(Found plugin) {
          return plugin.mod() == 2 ? List.of("Weather") : List.of();
        }

        @Override
        public Optional<Band> band(Found plugin) {
          return plugin.mod() == 3 ? Optional.of(new Band(0, "groundwork")) : Optional.empty();
        }
      };

  private static Found plugin(String name, long mod, int stage, String... masters) {
    return new Found(
        name,
        mod,
        false,
        "",
        Optional.of(Header.of(stage, List.of(masters), 1)),
        Optional.empty(),
        name,
        Optional.empty());
  }

  private static LoadOrder order(List<Found> plugins, List<Wish> wishes) {
    return LoadOrder.of(TestWorld.GAME, plugins, wishes);
  }

  private static LoadRule rule(Strength strength, String plugin, Kind kind, String other) {
    return rule(strength, Who.named(plugin), kind, Who.named(other));
  }

  private static LoadRule rule(Strength strength, Who plugin, Kind kind, Who other) {
    String key = strength + " " + plugin + " " + kind + " " + other;
    return new LoadRule(key, kind, plugin, other, "so", "test " + key, strength);
  }

  private static List<String> sorted(LoadOrderProposal p) {
    return ((Outcome.Sorted<String>) p.outcome()).order();
  }

  /** A random world: plugins that name masters, most of which stand before them, and rules. */
  private record World(LoadOrder order, List<LoadRule> rules) {
    static World random(Random random, int n, int masters, int rules) {
      List<Integer> hidden = Orders.shuffled(n, random);
      List<Found> plugins = new ArrayList<>();
      List<Wish> wishes = new ArrayList<>();
      for (int i = 0; i < n; i++) {
        Set<String> own = new HashSet<>();
        for (int m = random.nextInt(masters + 1); m > 0; m--) {
          int other = random.nextInt(n);
          boolean back = random.nextInt(12 * n) == 0;
          if (other != i && (back || hidden.get(other) < hidden.get(i))) own.add("P" + other);
        }
        plugins.add(plugin("P" + i, 1 + i % 3, 5, own.toArray(String[]::new)));
        wishes.add(new Wish("P" + i, true, random.nextInt(2 * n) == 0));
      }
      List<LoadRule> all = new ArrayList<>();
      for (int r = random.nextInt(rules + 1); r > 0; r--)
        all.add(
            rule(
                random.nextBoolean() ? Strength.USER : Strength.CARD,
                "P" + random.nextInt(n),
                random.nextBoolean() ? Kind.AFTER : Kind.BEFORE,
                "P" + random.nextInt(n)));
      return new World(LoadOrderProposalTest.order(plugins, wishes), all);
    }

    /** What must hold when some rules have given way. */
    Graph<String, DefaultEdge> graph(Collection<LoadRule> gaveWay) {
      Graph<String, DefaultEdge> graph = new DefaultDirectedGraph<>(DefaultEdge.class);
      for (Entry e : order.entries()) graph.addVertex(e.name());
      for (Entry e : order.entries())
        for (String m : e.plugin().masters()) graph.addEdge(m, e.name());
      for (LoadRule r : rules) {
        String a = r.plugin().text(), b = r.other().text();
        if (gaveWay.contains(r) || a.equals(b)) continue;
        if (r.kind() == Kind.AFTER) graph.addEdge(b, a);
        else graph.addEdge(a, b);
      }
      return graph;
    }
  }

  /** Feasibility and order beside JGraphT, and locally no move too many. */
  @Property(tries = 2000, seed = "8160")
  void a_proposal_holds_and_moves_nothing_without_need(@ForAll long seed) {
    World w = World.random(new Random(seed), 24, 2, 20);
    LoadOrderProposal p = LoadOrderProposal.propose(w.order(), w.rules(), PluginFacts.NONE);
    Set<LoadRule> gaveWay = new HashSet<>();
    p.gaveWay().forEach(g -> gaveWay.add(g.rule().orElseThrow()));
    Graph<String, DefaultEdge> fixed = w.graph(w.rules());
    List<String> kept = w.order().entries().stream().filter(Entry::kept).map(Entry::name).toList();
    if (p.outcome() instanceof Outcome.Ring<String> ring) {
      closes(ring.ring());
      boolean keptIn = ring.ring().stream().anyMatch(c -> c.from().equals("you"));
      assertThat(new CycleDetector<>(fixed).detectCycles() || keptIn).isTrue();
      return;
    }
    Graph<String, DefaultEdge> graph = w.graph(gaveWay);
    assertThat(new CycleDetector<>(graph).detectCycles()).isFalse();
    assertThat(new TopologicalOrderIterator<>(graph)).toIterable().hasSize(24);
    Outcome.Sorted<String> sorted = (Outcome.Sorted<String>) p.outcome();
    Map<String, Integer> at = new HashMap<>();
    for (String name : sorted.order()) at.put(name, at.size());
    for (DefaultEdge e : graph.edgeSet())
      assertThat(at.get(graph.getEdgeSource(e))).isLessThan(at.get(graph.getEdgeTarget(e)));
    Set<String> moved = new HashSet<>();
    for (Move<String> m : sorted.moves()) moved.add(m.item());
    assertThat(moved).doesNotContainAnyElementsOf(kept.isEmpty() ? List.of("none") : kept);
    List<String> present = w.order().entries().stream().map(Entry::name).toList();
    List<String> stay = present.stream().filter(n -> !moved.contains(n)).toList();
    assertThat(sorted.order().stream().filter(stay::contains).toList()).isEqualTo(stay);
    // none of those that move could have stayed beside those that do
    for (String m : moved) {
      boolean could = true;
      for (String s : stay) {
        boolean before = present.indexOf(s) < present.indexOf(m);
        if (before ? leads(graph, m, s) : leads(graph, s, m)) could = false;
      }
      assertThat(could).as(m).isFalse();
    }
    // every rule that gave way closed a ring of rules at least as strong
    p.gaveWay().forEach(g -> closes(g.ring()));
  }

  private static boolean leads(Graph<String, DefaultEdge> graph, String from, String to) {
    BreadthFirstIterator<String, DefaultEdge> walk = new BreadthFirstIterator<>(graph, from);
    while (walk.hasNext()) if (walk.next().equals(to)) return true;
    return false;
  }

  private static void closes(List<Constraint<String>> ring) {
    for (int i = 0; i < ring.size(); i++)
      assertThat(ring.get(i).later()).isEqualTo(ring.get((i + 1) % ring.size()).earlier());
  }

  /** Beside every order that there is of up to eight. */
  @Property(tries = 120, seed = "8160")
  void no_order_of_all_moves_fewer(@ForAll long seed) {
    Random random = new Random(seed);
    World w = World.random(random, 2 + random.nextInt(7), 2, 3);
    LoadOrderProposal p = LoadOrderProposal.propose(w.order(), w.rules(), PluginFacts.NONE);
    if (!(p.outcome() instanceof Outcome.Sorted<String> sorted)) return;
    Set<LoadRule> gaveWay = new HashSet<>();
    p.gaveWay().forEach(g -> gaveWay.add(g.rule().orElseThrow()));
    Graph<String, DefaultEdge> graph = w.graph(gaveWay);
    List<String> present = w.order().entries().stream().map(Entry::name).toList();
    Set<String> kept = new HashSet<>();
    for (Entry e : w.order().entries()) if (e.kept()) kept.add(e.name());
    int fewest =
        Orders.fewestMoves(
            present,
            order ->
                graph.edgeSet().stream()
                    .allMatch(
                        e ->
                            order.indexOf(graph.getEdgeSource(e))
                                < order.indexOf(graph.getEdgeTarget(e))),
            kept);
    assertThat(sorted.moves()).hasSize(fewest);
  }

  /** GNU tsort says of the same masters whether they go round. */
  @Property(tries = 200, seed = "8160")
  void gnu_tsort_agrees_about_masters(@ForAll long seed) throws IOException, InterruptedException {
    World w = World.random(new Random(seed), 30, 3, 0);
    StringBuilder pairs = new StringBuilder();
    for (Entry e : w.order().entries()) {
      pairs.append(e.name()).append(' ').append(e.name()).append('\n');
      for (String m : e.plugin().masters())
        pairs.append(m).append(' ').append(e.name()).append('\n');
    }
    Process tsort = new ProcessBuilder("tsort").redirectErrorStream(true).start();
    try (OutputStream in = tsort.getOutputStream()) {
      in.write(pairs.toString().getBytes(UTF_8));
    }
    String said = new String(tsort.getInputStream().readAllBytes(), UTF_8);
    boolean loops = tsort.waitFor() != 0;
    assertThat(loops).isEqualTo(said.contains("loop"));
    LoadOrder nobodyKept =
        order(
            w.order().entries().stream().map(Entry::plugin).toList(),
            w.order().asWishes().stream().map(x -> x.withKept(false)).toList());
    LoadOrderProposal p = LoadOrderProposal.propose(nobodyKept, List.of(), PluginFacts.NONE);
    assertThat(p.outcome() instanceof Outcome.Ring).isEqualTo(loops);
  }

  @Test
  void groups_are_named_by_pattern_or_tag_and_bands_come_last() {
    List<Found> plugins =
        List.of(
            plugin("Storm.plug", 2, 5),
            plugin("Fog.plug", 2, 5),
            plugin("Tariff-a.plug", 1, 5),
            plugin("Quay.plug", 3, 5),
            plugin("Tariff-b.plug", 3, 5));
    LoadOrder order = order(plugins, List.of());
    LoadRule weather =
        rule(
            Strength.USER, new Who(By.PATTERN, "tariff*"), Kind.BEFORE, new Who(By.TAG, "weather"));
    LoadOrderProposal p = LoadOrderProposal.propose(order, List.of(weather), TAGGED);
    List<String> names = sorted(p);
    assertThat(names.indexOf("Tariff-b.plug")).isLessThan(names.indexOf("Storm.plug"));
    assertThat(names.indexOf("Tariff-a.plug")).isLessThan(names.indexOf("Fog.plug"));
    assertThat(p.gaveWay()).isEmpty();
    // a plugin that is of both groups is spoken of from the side of the first
    LoadRule both =
        rule(Strength.USER, new Who(By.TAG, "weather"), Kind.AFTER, new Who(By.PATTERN, "*"));
    assertThat(sorted(LoadOrderProposal.propose(order, List.of(both), TAGGED)))
        .containsExactly("Tariff-a.plug", "Quay.plug", "Tariff-b.plug", "Storm.plug", "Fog.plug");
  }

  @Test
  void of_contradicting_rules_the_weaker_gives_way_and_names_its_ring() {
    LoadOrder order = order(List.of(plugin("A", 1, 5), plugin("B", 1, 5)), List.of());
    LoadRule list = rule(Strength.LIST, "A", Kind.AFTER, "B");
    LoadRule user = rule(Strength.USER, "A", Kind.BEFORE, "B");
    LoadOrderProposal p = LoadOrderProposal.propose(order, List.of(list, user), PluginFacts.NONE);
    assertThat(sorted(p)).containsExactly("A", "B");
    assertThat(p.gaveWay()).singleElement().satisfies(g -> assertThat(g.rule()).contains(list));
    WaysOut.Found<Exit> out =
        LoadOrderProposal.waysOut(order, List.of(list, user), PluginFacts.NONE);
    assertThat(out.sets())
        .containsExactlyInAnyOrder(
            Set.of(new Exit(list.key(), null, null)), Set.of(new Exit(user.key(), null, null)));
  }

  @Test
  void two_proposals_are_unlike_where_one_of_them_moves_a_plugin_elsewhere() {
    LoadOrder order =
        order(
            List.of(plugin("A", 1, 5), plugin("B", 1, 5), plugin("C", 1, 5)),
            List.of(new Wish("A", true), new Wish("B", true), new Wish("C", true)));
    LoadOrderProposal without = LoadOrderProposal.propose(order, List.of(), PluginFacts.NONE);
    LoadOrderProposal with =
        LoadOrderProposal.propose(
            order, List.of(rule(Strength.USER, "A", Kind.AFTER, "C")), PluginFacts.NONE);
    assertThat(sorted(with)).containsExactly("B", "C", "A");
    assertThat(LoadOrderProposal.unlike(without, with))
        .as("B and C have only been gone past")
        .containsExactly(new LoadOrderProposal.Unlike("A", 0, 2));
    assertThat(LoadOrderProposal.unlike(with, without))
        .containsExactly(new LoadOrderProposal.Unlike("A", 2, 0));
    assertThat(LoadOrderProposal.unlike(with, with)).isEmpty();
    LoadOrder ring = order(List.of(plugin("A", 1, 5, "B"), plugin("B", 1, 5, "A")), List.of());
    assertThat(
            LoadOrderProposal.unlike(
                with, LoadOrderProposal.propose(ring, List.of(), PluginFacts.NONE)))
        .isEmpty();
  }

  @Test
  void masters_that_go_round_have_ways_out_by_switching_off() {
    LoadOrder order =
        order(
            List.of(plugin("A", 1, 5, "B"), plugin("B", 1, 5, "C", "A"), plugin("C", 1, 5, "B")),
            List.of());
    LoadOrderProposal p = LoadOrderProposal.propose(order, List.of(), PluginFacts.NONE);
    assertThat(((Outcome.Ring<String>) p.outcome()).ring()).hasSize(2);
    WaysOut.Found<Exit> out = LoadOrderProposal.waysOut(order, List.of(), PluginFacts.NONE);
    assertThat(out.sets()).containsExactly(Set.of(new Exit(null, "B", null)));
    assertThat(out.whole()).isTrue();
  }

  @Test
  void a_place_kept_against_what_is_fixed_is_named() {
    LoadOrder order =
        order(
            List.of(plugin("A", 1, 5, "B"), plugin("B", 1, 5)),
            List.of(new Wish("A", true, true), new Wish("B", true, true)));
    LoadOrderProposal p = LoadOrderProposal.propose(order, List.of(), PluginFacts.NONE);
    assertThat(p.outcome().toString()).contains("both are kept where they are");
    assertThat(LoadOrderProposal.waysOut(order, List.of(), PluginFacts.NONE).sets())
        .contains(Set.of(new Exit(null, null, "A")), Set.of(new Exit(null, "A", null)));
  }

  @Test
  void why_here_tells_neighbours_and_how_far_it_could_move() {
    LoadOrder order =
        order(
            List.of(
                plugin("A", 1, 5),
                plugin("B", 1, 5, "A"),
                plugin("X", 1, 5),
                plugin("C", 1, 5, "B"),
                plugin("Y", 1, 5),
                plugin("D", 1, 5, "C")),
            List.of());
    LoadOrderProposal p = LoadOrderProposal.propose(order, List.of(), PluginFacts.NONE);
    LoadOrderProposal.Why why = p.why("C");
    assertThat(why.around().before()).extracting(t -> t.other()).containsExactly("B", "A");
    assertThat(why.around().before().get(1).chain()).hasSize(2);
    assertThat(why.around().after()).extracting(t -> t.other()).containsExactly("D");
    assertThat(why.lowest()).isEqualTo(2);
    assertThat(why.highest()).isEqualTo(4);
  }

  @Test
  void a_rule_book_drops_and_turns_about_all_but_what_is_fixed() {
    LoadRule card = rule(Strength.CARD, "A", Kind.AFTER, "B");
    LoadRule fixed = rule(Strength.FIXED, "A", Kind.AFTER, "C");
    RuleBook book =
        RuleBook.EMPTY
            .with(Kind.BEFORE, Who.named("A"), Who.named("D"), "")
            .treating(card.key(), Treatment.REVERSED)
            .treating(fixed.key(), Treatment.DROPPED);
    List<LoadRule> rules = book.applied(List.of(card, fixed));
    assertThat(rules)
        .extracting(LoadRule::kind)
        .containsExactly(Kind.BEFORE, Kind.BEFORE, Kind.AFTER);
    assertThat(rules.get(0).reason()).isEqualTo("you said so");
    assertThat(book.treating(card.key(), Treatment.DROPPED).applied(List.of(card, fixed)))
        .hasSize(2);
    assertThat(book.treating(card.key(), null).without("own 1").applied(List.of(card)))
        .containsExactly(card);
  }
}
