package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.verifyNoMoreInteractions;
import static org.mockito.Mockito.when;

import ironing.core.IroningException;
import ironing.server.testkit.Patience;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;

@ExtendWith(OutputCaptureExtension.class)
class ReadAheadTest {
  private static final int PATIENCE_MS = 5_000;
  private final OpenWorkspaceMapper db = mock(OpenWorkspaceMapper.class);
  private final OpenWorkspaces workspaces = mock(OpenWorkspaces.class);
  private final ReadAhead ahead = new ReadAhead(db, workspaces);

  @Test
  void the_one_that_was_worked_on_last_is_read_and_no_other() {
    when(db.lastUsed()).thenReturn(7L);
    ahead.begin();
    verify(workspaces, timeout(PATIENCE_MS)).get(7L);
    verifyNoMoreInteractions(workspaces);
  }

  @Test
  void with_no_workspace_there_is_nothing_to_read() {
    when(db.lastUsed()).thenReturn(null);
    ahead.begin();
    verify(db, timeout(PATIENCE_MS)).lastUsed();
    verifyNoInteractions(workspaces);
  }

  @Test
  void one_that_cannot_be_read_is_told_in_the_log(CapturedOutput said) {
    when(db.lastUsed()).thenReturn(3L);
    when(workspaces.get(3L))
        .thenThrow(IroningException.of("gone", "The game", "It is not there.", "Bring it back."));
    ahead.begin();
    verify(workspaces, timeout(PATIENCE_MS)).get(3L);
    String log = Patience.until(said::getAll, s -> s.contains("read ahead"));
    assertThat(log).contains("no workspace is read ahead", "It is not there");
  }
}
