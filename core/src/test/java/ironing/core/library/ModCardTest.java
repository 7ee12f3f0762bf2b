package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ModCardTest {
  @ParameterizedTest
  @CsvSource({
    "Bigger Bollards 1.0.zip, Bigger Bollards, 1.0, bigger-bollards",
    "lights-and-bells-0.9.7z, lights and bells, 0.9, lights-and-bells",
    "quiet_gulls_v2.1a.tar.zst, quiet gulls, 2.1a, quiet-gulls",
    "Größere Köge.tar, Größere Köge, 0, gro-ere-koge",
    "3.zip, 3, 0, 3"
  })
  void a_card_is_inferred_from_the_name_of_the_archive(
      String archive, String name, String version, String id) {
    ModCard card = ModCard.inferredFrom(archive);
    assertThat(card.name()).isEqualTo(name);
    assertThat(card.version()).isEqualTo(version);
    assertThat(card.id()).isEqualTo(id);
    assertThat(card.inferred()).isTrue();
  }

  @Test
  void a_version_that_the_archive_does_not_tell_may_stand_in_the_name_of_its_folder() {
    assertThat(ModCard.inferredFrom("bells.zip", "Bells and Whistles v0.9/data").version())
        .isEqualTo("0.9");
    assertThat(ModCard.inferredFrom("bells-2.0.zip", "Bells 0.9").version()).isEqualTo("2.0");
    ModCard untold = ModCard.inferredFrom("bells.zip", "bells");
    assertThat(untold.shownVersion()).isEmpty();
    assertThat(ModCard.inferredFrom("bells-0.9.zip").shownVersion()).isEqualTo("0.9");
  }

  @Test
  void a_name_that_is_given_brings_its_own_id() {
    ModCard card = ModCard.inferredFrom("two-1.0.zip").named("Pier Lights");
    assertThat(card.id()).isEqualTo("pier-lights");
    assertThat(card.version()).isEqualTo("1.0");
  }

  @Test
  void an_edited_card_stays_the_card_of_the_same_mod() {
    ModCard given =
        ModCard.read(
            "mod-card.yaml",
            """
            format: ironing/mod@1
            id: lamp
            name: Lamp
            version: 1.10
            needs: [ { mod: rope, versions: ">=1" } ]
            source: { url: "https://mods.example/lamp", release: "1.10" }
            """);
    assertThat(given.source())
        .isEqualTo(Optional.of(new ModCard.Source("https://mods.example/lamp", "", "1.10")));
    ModCard edited = given.edited("Lamp, mine", "1.11", List.of("me"), "s", Optional.empty());
    assertThat(edited.id()).isEqualTo("lamp");
    assertThat(edited.needs()).isEqualTo(given.needs());
    assertThat(edited.version()).isEqualTo("1.11");
    assertThat(edited.source()).isEmpty();
  }

  @Test
  void signs_are_told_by_one_thing_each() {
    String card = "format: ironing/mod@1\nid: a\nname: A\nversion: 1\nsigns:\n";
    ModCard read =
        ModCard.read(
            "mod-card.yaml",
            card
                + "  - { says: Fast, report: \"Aud Helga, speed\", is: 12, unit: kn }\n"
                + "  - { says: Far, read: sound/gulls.ogg }\n"
                + "  - { says: There, look: \"Harbour, left\" }\n");
    assertThat(read.signs())
        .containsExactly(
            new Sign(
                Sign.Kind.REPORT, "Fast", "Aud Helga, speed", Optional.of("12"), Optional.of("kn")),
            new Sign(Sign.Kind.READ, "Far", "sound/gulls.ogg", Optional.empty(), Optional.empty()),
            new Sign(Sign.Kind.LOOK, "There", "Harbour, left", Optional.empty(), Optional.empty()));
    for (String wrong :
        List.of("{ says: Both, read: a, look: b }", "{ says: None }", "{ read: a }"))
      assertThatThrownBy(() -> ModCard.read("mod-card.yaml", card + "  - " + wrong + "\n"))
          .isInstanceOf(IroningException.class);
  }
}
