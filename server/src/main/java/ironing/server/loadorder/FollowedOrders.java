package ironing.server.loadorder;

import ironing.core.lists.PublishedList;
import java.util.List;

/** The published load orders that a workspace follows: each of them asks for an order. */
public interface FollowedOrders {
  /** The load orders that are followed, the newest first. */
  List<FollowedOrder> ordersOf(long workspace);

  /**
   * One load order that is followed.
   *
   * @param id its number
   * @param title as the user sees it
   */
  record FollowedOrder(long id, String title, PublishedList list) {}
}
