package ironing.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.picture.Arrangement.Layer;
import java.util.List;
import org.junit.jupiter.api.Test;

class StoodTest {
  private static Arrangement of(Layer... layers) {
    return Arrangement.EMPTY.withLayers(
        List.of(layers), List.of(new Arrangement.Section(4, "Looks")));
  }

  private static final Layer A = new Layer(1, true, 4, true),
      B = new Layer(2, false),
      C = new Layer(3, true, 4, false);

  @Test
  void a_mod_that_comes_back_has_its_layer_again() {
    Stood stood = Stood.of(of(C, A, B), 1).orElseThrow();
    assertThat(stood).isEqualTo(new Stood(1, true, 4, true));
    assertThat(stood.back(of(C, B), 1).layers()).containsExactly(C, A, B);
  }

  @Test
  void with_fewer_layers_than_then_it_is_on_top() {
    assertThat(new Stood(5, true, 0, false).back(of(B), 1).layers())
        .containsExactly(B, new Layer(1, true));
    assertThat(Stood.ON_TOP_OFF.back(of(C), 2).layers()).containsExactly(C, B);
  }

  @Test
  void a_mod_without_a_layer_stood_nowhere() {
    assertThat(Stood.of(of(B), 1)).isEmpty();
  }
}
