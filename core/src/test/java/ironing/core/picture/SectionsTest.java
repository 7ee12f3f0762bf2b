package ironing.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.picture.Arrangement.Layer;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class SectionsTest {
  /** As text: “1 2a 3a 4”: the mod, and the letter of its section. */
  private static List<Layer> layers(String text) {
    List<Layer> layers = new ArrayList<>();
    for (String word : text.split(" ")) {
      String digits = word.replaceAll("[a-z]", "");
      long section = word.length() > digits.length() ? word.charAt(word.length() - 1) : 0;
      layers.add(new Layer(Long.parseLong(digits), true, section, false));
    }
    return layers;
  }

  private static String text(List<Layer> layers) {
    return layers.stream()
        .map(l -> l.mod() + (l.section() == 0 ? "" : Character.toString((char) l.section())))
        .collect(Collectors.joining(" "));
  }

  private static String moved(String from, int to, Long... mods) {
    return text(Sections.moved(layers(from), Set.of(mods), to));
  }

  @Test
  void who_comes_between_two_of_a_section_belongs_to_it() {
    assertThat(moved("1 2a 3a 4", 2, 4L)).isEqualTo("1 2a 4a 3a");
    assertThat(moved("1 2a 3a 4", 1, 1L)).isEqualTo("2a 1a 3a 4");
  }

  @Test
  void who_stays_beside_its_section_stays_in_it_and_who_goes_away_leaves_it() {
    assertThat(moved("1 2a 3a 4", 1, 3L)).isEqualTo("1 3a 2a 4");
    assertThat(moved("1 2a 3a 4", 3, 2L)).isEqualTo("1 3a 4 2");
    assertThat(moved("1 2a 3a 4", 0, 4L))
        .as("a stranger at its edge does not join")
        .isEqualTo("4 1 2a 3a");
    assertThat(moved("1 2a 3a 4", 3, 1L)).isEqualTo("2a 3a 4 1");
  }

  @Test
  void a_whole_section_moves_as_one_and_never_into_another() {
    assertThat(moved("1 2a 3a 4 5b 6b", 0, 2L, 3L)).isEqualTo("2a 3a 1 4 5b 6b");
    assertThat(moved("1 2a 3a 4 5b 6b", 3, 2L, 3L)).isEqualTo("1 4 5b 6b 2a 3a");
  }

  @Test
  void layers_are_gathered_into_a_new_section_or_one_that_is_there() {
    assertThat(text(Sections.gathered(layers("1 2 3 4"), Set.of(1L, 3L), 'a')))
        .isEqualTo("2 1a 3a 4");
    assertThat(text(Sections.gathered(layers("1 2a 3a 4"), Set.of(1L, 4L), 'a')))
        .isEqualTo("2a 3a 1a 4a");
    assertThat(text(Sections.gathered(layers("1a 2a 3a 4"), Set.of(2L), 'b')))
        .as("out of the middle of another, above it")
        .isEqualTo("1a 3a 2b 4");
  }

  @Property(tries = 500, seed = "8160")
  void the_layers_of_a_section_are_neighbours_whatever_is_moved(@ForAll long seed) {
    Random random = new Random(seed);
    List<Layer> layers = layers("1 2a 3a 4a 5 6b 7b 8 9c");
    for (int step = 0; step < 6; step++) {
      Set<Long> moving = new HashSet<>();
      for (long m = 1; m <= 9; m++) if (random.nextInt(4) == 0) moving.add(m);
      List<Layer> before = layers;
      layers = Sections.moved(layers, moving, random.nextInt(10));
      assertThat(layers)
          .extracting(Layer::mod)
          .containsExactlyInAnyOrderElementsOf(before.stream().map(Layer::mod).toList());
      Set<Long> closed = new HashSet<>();
      long open = 0;
      for (Layer l : layers) {
        if (l.section() != open) closed.add(open);
        open = l.section();
        if (open != 0) assertThat(closed).as(text(layers)).doesNotContain(open);
      }
    }
  }
}
