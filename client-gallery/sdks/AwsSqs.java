// name: AWS SDK 2, SQS
// needs: software.amazon.awssdk:sqs:2.57.8
import java.net.URI;
import java.util.List;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.sqs.SqsClient;

public final class AwsSqs implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (SqsClient client =
        SqsClient.builder()
            .endpointOverride(URI.create(origin))
            .region(Region.EU_WEST_1)
            .credentialsProvider(
                StaticCredentialsProvider.create(AwsBasicCredentials.create("made-up", "made-up")))
            .build()) {
      return client.listQueues().queueUrls();
    }
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"QueueUrls\":[\"https://harbour.example/04:10\"]}");
  }
}
