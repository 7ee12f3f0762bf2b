package ironing.core.disk;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FolderTreeTest {
  @TempDir Path temp;

  @Test
  void a_folder_goes_with_all_in_it_and_nothing_beside_it() throws IOException {
    for (int i = 0; i < 20; i++)
      Trees.write(temp.resolve("gone/a" + i % 4 + "/b" + i % 3 + "/" + i + ".txt"), "x");
    Files.createDirectories(temp.resolve("gone/empty/below"));
    Trees.write(temp.resolve("stays/a.txt"), "x");
    FolderTree.remove(temp.resolve("gone"));
    assertThat(temp.resolve("gone")).doesNotExist();
    assertThat(temp.resolve("stays/a.txt")).exists();
  }

  @Test
  void links_go_and_what_they_lead_to_stays() throws IOException {
    Trees.write(temp.resolve("stays/a.txt"), "x");
    Path folder = Files.createDirectories(temp.resolve("gone/in"));
    Files.createSymbolicLink(folder.resolve("out"), temp.resolve("stays"));
    Files.createSymbolicLink(folder.resolve("file"), temp.resolve("stays/a.txt"));
    Files.createSymbolicLink(folder.resolve("nowhere"), temp.resolve("none"));
    Path link = Files.createSymbolicLink(temp.resolve("link"), temp.resolve("stays"));
    FolderTree.remove(temp.resolve("gone"));
    FolderTree.remove(link);
    assertThat(Files.exists(temp.resolve("gone"), LinkOption.NOFOLLOW_LINKS)).isFalse();
    assertThat(Files.exists(link, LinkOption.NOFOLLOW_LINKS)).isFalse();
    assertThat(temp.resolve("stays/a.txt")).hasContent("x");
  }

  @Test
  void a_file_goes_and_what_is_not_there_is_no_error() throws IOException {
    Trees.write(temp.resolve("file"), "x");
    FolderTree.remove(temp.resolve("file"));
    FolderTree.remove(temp.resolve("file"));
    assertThat(temp.resolve("file")).doesNotExist();
  }
}
