package dev.cachette;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.internal.collection.Items;
import dev.cachette.internal.collection.Requests;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * A collection of JSON objects in memory, which answers as a REST service does:
 *
 * <ul>
 *   <li>{@code GET /bookings}: an array of all, or of those whose members have the values of the
 *       query parameters; {@code limit} and {@code offset} choose a page; the headers {@code
 *       total-count} and {@code link} tell of the others;
 *   <li>{@code POST /bookings}: a new one, 201 with its location; one without an identifier is
 *       given the next number;
 *   <li>{@code GET /bookings/7}, {@code PUT}, {@code DELETE}: that one;
 *   <li>{@code PATCH /bookings/7}: that one changed by a merge patch (RFC 7396).
 * </ul>
 *
 * What is not there is answered 404, what is malformed 400, a second one with the same identifier
 * 409, each as a problem (RFC 9457). A more specific stub, or one declared later, can answer in its
 * place. Made by {@link Cachette#collection}. Any thread may use it.
 */
public final class RestCollection implements CallGroup {

  private final Cachette net;
  private final String url;
  private final Items items = new Items();
  private final List<StubRule> rules = new ArrayList<>();

  RestCollection(Cachette net, String url) {
    this.net = net;
    this.url = url;
    Requests requests = new Requests(items);
    String item = url + "/{" + Requests.ID + "}";
    stub("GET " + url, requests::list);
    stub("POST " + url, requests::create);
    stub("GET " + item, requests::read);
    stub("PUT " + item, requests::replace);
    stub("PATCH " + item, requests::patch);
    stub("DELETE " + item, requests::delete);
    rules.get(0).onStartAgain(items::startAgain);
    Supplier<JsonNode> written = () -> items.written(url);
    rules.forEach(rule -> rule.belongTo(written));
  }

  /**
   * Returns what is in the collection at the start, and at the start of each test.
   *
   * @param json an array of objects
   * @throws IllegalArgumentException if it is something else
   */
  public RestCollection seed(String json) {
    if (json == null) {
      throw new IllegalArgumentException("seed(json) was given null.");
    }
    items.seed(json);
    return this;
  }

  /**
   * Returns the member that identifies an object; {@code id} by default.
   *
   * @throws IllegalArgumentException if the name is null or blank
   */
  public RestCollection identifiedBy(String member) {
    if (member == null || member.isBlank()) {
      throw new IllegalArgumentException("identifiedBy(member) needs a name, not " + member + ".");
    }
    items.identifiedBy(member);
    return this;
  }

  /** Returns copies of its current objects, in insertion order. */
  public List<JsonNode> items() {
    return items.all();
  }

  /** Returns the calls of the collection and of its objects. */
  @Override
  public Calls calls() {
    return net.calls().matching("* " + url).or("* " + url + "/{" + Requests.ID + "}");
  }

  private void stub(String line, Function<Received, Answer> function) {
    DraftStub draft = new DraftStub(RequestPattern.of(line), Caller.place());
    rules.add(net.rule(draft, List.of(Answers.computed(function)), false));
  }

  /** Returns its stubs. */
  List<StubRule> rules() {
    return rules;
  }

  /** Returns its URL. */
  @Override
  public String toString() {
    return "the collection " + url;
  }
}
