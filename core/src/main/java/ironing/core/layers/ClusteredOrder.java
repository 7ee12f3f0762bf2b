package ironing.core.layers;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/**
 * An order in which those that have most in common stand together.
 *
 * <p>Clusters are joined by average linkage: the two that have most in common on average, again and
 * again (UPGMA, Sokal and Michener 1958). Two clusters are laid side by side with those ends
 * together that have most in common. What has nothing in common with anything keeps its place
 * behind the rest.
 *
 * <p>Cost: time n³ at most, memory n².
 */
public final class ClusteredOrder {
  private ClusteredOrder() {}

  /**
   * @param common by two indexes, how much those have in common; symmetric, the diagonal is not
   *     read
   * @return all indexes; the same for the same input
   */
  public static List<Integer> of(double[][] common) {
    int n = common.length;
    double[][] average = new double[n][];
    List<List<Integer>> clusters = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      average[i] = common[i].clone();
      clusters.add(List.of(i));
    }
    boolean[] gone = new boolean[n];
    while (true) {
      int a = -1, b = -1;
      double best = 0;
      for (int i = 0; i < n; i++) {
        if (gone[i]) continue;
        for (int j = i + 1; j < n; j++) {
          if (!gone[j] && average[i][j] > best) {
            best = average[i][j];
            a = i;
            b = j;
          }
        }
      }
      if (a < 0) break;
      int sizeA = clusters.get(a).size(), sizeB = clusters.get(b).size();
      for (int k = 0; k < n; k++) {
        if (gone[k] || k == a || k == b) continue;
        double both = (average[a][k] * sizeA + average[b][k] * sizeB) / (sizeA + sizeB);
        average[a][k] = both;
        average[k][a] = both;
      }
      clusters.set(a, joined(clusters.get(a), clusters.get(b), common));
      gone[b] = true;
    }
    List<Integer> order = new ArrayList<>();
    for (int i = 0; i < n; i++)
      if (!gone[i] && clusters.get(i).size() > 1) order.addAll(clusters.get(i));
    for (int i = 0; i < n; i++) if (!gone[i] && clusters.get(i).size() == 1) order.add(i);
    return order;
  }

  private static List<Integer> joined(List<Integer> a, List<Integer> b, double[][] common) {
    int firstA = a.get(0), lastA = a.get(a.size() - 1);
    int firstB = b.get(0), lastB = b.get(b.size() - 1);
    double[] ends = {
      common[lastA][firstB], common[lastA][lastB], common[firstA][firstB], common[firstA][lastB]
    };
    int best = 0;
    for (int i = 1; i < ends.length; i++) if (ends[i] > ends[best]) best = i;
    List<Integer> left = best < 2 ? a : reversed(a);
    List<Integer> right = best % 2 == 0 ? b : reversed(b);
    List<Integer> both = new ArrayList<>(left);
    both.addAll(right);
    return both;
  }

  private static List<Integer> reversed(List<Integer> list) {
    List<Integer> turned = new ArrayList<>(list);
    Collections.reverse(turned);
    return turned;
  }
}
