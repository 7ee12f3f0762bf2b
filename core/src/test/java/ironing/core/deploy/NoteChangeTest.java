package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.LaidOut.How;
import ironing.core.deploy.LaidOut.Item;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class NoteChangeTest {
  private static Item item(int path, int version) {
    String sha = Integer.toHexString(version + 16).repeat(32);
    return new Item(
        "data/" + path % 7 + "/" + path, sha, version, 1, "Mod", How.LINK, Optional.empty());
  }

  private static LaidOut note(Map<String, Item> files, List<String> folders) {
    return new LaidOut("then", files, folders, Optional.empty());
  }

  /** By number: 0 is not there, else a version. */
  private static LaidOut note(List<Integer> versions) {
    Map<String, Item> files = new TreeMap<>();
    TreeSet<String> folders = new TreeSet<>();
    for (int i = 0; i < versions.size(); i++) {
      if (versions.get(i) == 0) continue;
      Item item = item(i, versions.get(i));
      files.put(item.path(), item);
      folders.add("data/" + i % 7);
    }
    return note(files, List.copyOf(folders));
  }

  @Property(tries = 500, seed = "8160")
  void what_leads_from_one_note_to_another_leads_there(
      @ForAll @Size(60) List<@IntRange(max = 2) Integer> was,
      @ForAll @Size(max = 6) List<@IntRange(max = 59) Integer> where,
      @ForAll @IntRange(max = 2) int to) {
    List<Integer> is = new ArrayList<>(was);
    for (int i : where) is.set(i, to);
    LaidOut before = note(was), after = note(is);
    Optional<NoteChange> change = NoteChange.between(before, after, 7);
    long differing = 0;
    for (int i = 0; i < 60; i++) if (!was.get(i).equals(is.get(i))) differing++;
    assertThat(change.isPresent()).isEqualTo(differing <= after.files().size() / 8);
    if (change.isEmpty()) return;
    assertThat(change.get().put().size() + change.get().gone().size()).isEqualTo((int) differing);
    assertThat(change.get().on(before)).isEqualTo(after);
    NoteChange read = LaidOutText.readChange("7.json", LaidOutText.write(change.get()));
    assertThat(read.on(LaidOutText.read(LaidOutText.write(before, 0)).note())).isEqualTo(after);
  }

  @Property(tries = 300, seed = "8160")
  void items_answer_as_a_map_does(
      @ForAll @Size(max = 80) List<@IntRange(max = 300) Integer> paths,
      @ForAll @IntRange(max = 300) int asked) {
    Map<String, Item> plain = new TreeMap<>();
    for (int p : paths) plain.put(item(p, 1).path(), item(p, 1));
    Items items = Items.of(plain);
    assertThat(items).isEqualTo(plain).hasSameSizeAs(plain);
    assertThat(List.copyOf(items.keySet())).isEqualTo(List.copyOf(plain.keySet()));
    assertThat(List.copyOf(items.values())).isEqualTo(List.copyOf(plain.values()));
    String path = item(asked, 1).path();
    assertThat(items.get(path)).isEqualTo(plain.get(path));
    assertThat(items.containsKey(path)).isEqualTo(plain.containsKey(path));
    String folder = "data/" + asked % 7;
    assertThat(items.anyBelow(folder))
        .isEqualTo(plain.keySet().stream().anyMatch(p -> p.startsWith(folder + "/")));
  }

  @Test
  void a_change_of_nothing_but_the_profile_is_little() {
    LaidOut before = note(List.of(1, 1, 1));
    LaidOut after =
        new LaidOut("now", before.files(), before.folders(), Optional.of(2L), Optional.of("a/1"));
    NoteChange change = NoteChange.between(before, after, 1).orElseThrow();
    assertThat(change.put()).isEmpty();
    assertThat(change.on(before)).isEqualTo(after);
  }
}
