package ironing.server.workbench;

import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import ironing.core.IroningException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mockito.InOrder;

class ReadAheadTest {
  private final BenchMapper db = mock(BenchMapper.class);
  private final Workbenches benches = mock(Workbenches.class);
  private final ReadAhead ahead = new ReadAhead(db, benches);

  @Test
  void all_are_read_one_after_another_and_one_that_cannot_be_keeps_none_waiting() {
    when(db.workspacesByUse()).thenReturn(List.of(7L, 3L, 5L));
    when(benches.get(3L))
        .thenThrow(IroningException.of("gone", "The game", "It is not there.", "Bring it back."));
    ahead.begin();
    verify(benches, timeout(5_000)).get(5L);
    InOrder order = inOrder(benches);
    for (long w : new long[] {7, 3, 5}) order.verify(benches).get(w);
  }

  @Test
  void a_server_that_ends_reads_no_more() {
    when(db.workspacesByUse()).thenReturn(List.of(1L, 2L));
    when(benches.get(1L))
        .thenAnswer(
            asked -> {
              ahead.end();
              return null;
            });
    ahead.readAll();
    verify(benches).get(1L);
    verify(benches, never()).get(2L);
  }
}
