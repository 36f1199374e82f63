// name: Retrofit 2
// needs: com.squareup.retrofit2:retrofit:2.11.0
// needs: com.squareup.retrofit2:converter-scalars:2.11.0
import retrofit2.Call;
import retrofit2.Retrofit;
import retrofit2.converter.scalars.ScalarsConverterFactory;
import retrofit2.http.GET;

public final class Retrofit2 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new Retrofit.Builder()
        .baseUrl(origin + "/")
        .addConverterFactory(ScalarsConverterFactory.create())
        .build()
        .create(Tides.class)
        .tides()
        .execute()
        .body();
  }


  /** The service. */
  public interface Tides {

    @GET("v1/tides")
    Call<String> tides();
  }
}
