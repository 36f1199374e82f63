// name: AWS SDK 2, DynamoDB
// needs: software.amazon.awssdk:dynamodb:2.57.8
import java.net.URI;
import java.util.List;
import java.util.Map;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.dynamodb.DynamoDbClient;
import software.amazon.awssdk.services.dynamodb.model.AttributeValue;

public final class AwsDynamo implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (DynamoDbClient client =
        DynamoDbClient.builder()
            .endpointOverride(URI.create(origin))
            .region(Region.EU_WEST_1)
            .credentialsProvider(
                StaticCredentialsProvider.create(AwsBasicCredentials.create("made-up", "made-up")))
            .build()) {
      return client
          .getItem(
              request ->
                  request.tableName("tides").key(Map.of("day", AttributeValue.fromS("2031-05-04"))))
          .item();
    }
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"Item\":{\"high\":{\"S\":\"04:10\"}}}");
  }
}
