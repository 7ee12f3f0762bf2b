package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.library.Needs.Installed;
import ironing.core.library.Needs.State;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class NeedsTest {
  private static final ModCard LAMP =
      card("lamp", "1.0.0", "needs:\n  - { mod: oil, versions: \">=2.0 <3.0\" }\n");

  private static ModCard card(String id, String version, String more) {
    return ModCard.read(
        id,
        "format: ironing/mod@1\nid: %s\nname: %s\nversion: %s\n".formatted(id, id, version) + more);
  }

  private static Needs.Checked checked(Installed... library) {
    List<Needs.Checked> all = Needs.of(LAMP, Needs.byId(Arrays.asList(library)));
    assertThat(all).hasSize(1);
    return all.get(0);
  }

  @Test
  void a_need_is_met_by_a_mod_of_that_id_in_range_that_is_on() {
    assertThat(checked(new Installed(card("oil", "2.4.0", ""), true)).state()).isEqualTo(State.MET);
  }

  @Test
  void one_that_is_off_or_out_of_range_is_told_apart_from_one_that_is_not_there() {
    assertThat(checked(new Installed(card("oil", "2.4.0", ""), false)).state())
        .isEqualTo(State.OFF);
    assertThat(checked(new Installed(card("oil", "3.0.0", ""), true)).state())
        .isEqualTo(State.WRONG_VERSION);
    assertThat(checked(new Installed(card("wick", "2.4.0", ""), true)).state())
        .isEqualTo(State.MISSING);
    assertThat(checked().found()).isEmpty();
  }

  @Test
  void of_several_versions_the_one_that_meets_it_best_counts() {
    Needs.Checked c =
        checked(
            new Installed(card("oil", "1.0.0", ""), true),
            new Installed(card("oil", "2.1.0", ""), false),
            new Installed(card("oil", "2.2.0", ""), true));
    assertThat(c.state()).isEqualTo(State.MET);
    assertThat(c.found().get().version()).isEqualTo("2.2.0");
  }
}
