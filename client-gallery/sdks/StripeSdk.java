// name: Stripe
// needs: com.stripe:stripe-java:29.3.0
import com.stripe.Stripe;
import com.stripe.model.Customer;
import java.util.List;

public final class StripeSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    Stripe.overrideApiBase(origin);
    Stripe.apiKey = "sk_test_made_up";
    return Customer.retrieve("cus_1").getName();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"id\":\"cus_1\",\"object\":\"customer\",\"name\":\"04:10\"}");
  }
}
