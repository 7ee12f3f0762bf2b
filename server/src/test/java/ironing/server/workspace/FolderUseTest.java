package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.path.GameRoots;
import ironing.server.workspace.FolderUse.Use;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FolderUseTest {
  @TempDir Path game;
  private final FolderUse use = new FolderUse();

  private Site site() {
    return new Site(7, GameRoots.of(game), null);
  }

  /** Whether somebody else could start the game now. */
  private boolean isFreeForOthers() {
    try {
      CompletableFuture.runAsync(
              () -> {
                use.begin(site(), Use.RUNNING);
                use.end(7);
              })
          .join();
      return true;
    } catch (CompletionException e) {
      assertThat(e).hasCauseInstanceOf(IroningException.class);
      return false;
    }
  }

  /** A tool runs, what it wrote is taken off, and is deployed: nobody comes in between. */
  @Test
  void nobody_comes_in_between_the_parts_of_one_piece_of_work() {
    assertThat(isFreeForOthers()).isTrue();
    use.begin(site(), Use.TOOL);
    assertThat(isFreeForOthers()).isFalse();
    use.requireMine(7);
    use.begin(site(), Use.CHANGING);
    assertThat(use.present(7)).contains(Use.CHANGING);
    assertThat(isFreeForOthers()).isFalse();
    use.end(7);
    assertThat(use.present(7)).contains(Use.TOOL);
    assertThat(isFreeForOthers()).isFalse();
    use.end(7);
    assertThat(isFreeForOthers()).isTrue();
    assertThat(game.resolve(".ironing")).doesNotExist();
  }

  @Test
  void a_game_that_runs_is_joined_by_nobody_and_joins_nothing() {
    use.begin(site(), Use.RUNNING);
    assertThatThrownBy(() -> use.begin(site(), Use.CHANGING)).isInstanceOf(IroningException.class);
    assertThatThrownBy(() -> use.requireMine(7)).isInstanceOf(IllegalStateException.class);
    use.end(7);
    use.begin(site(), Use.CHANGING);
    assertThatThrownBy(() -> use.begin(site(), Use.RUNNING)).isInstanceOf(IroningException.class);
    use.end(7);
    assertThatThrownBy(() -> use.requireMine(7)).isInstanceOf(IllegalStateException.class);
  }
}
