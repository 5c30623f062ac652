using RuddySpring.Store;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>A whole household out to one file, and in again.</summary>
public static class HouseholdExchange
{
    public static void MapHouseholdExchange(this IEndpointRouteBuilder api)
    {
        api.MapGet(
            "/exchange/household.json",
            async (HttpResponse response, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            {
                var now = time.GetUtcNow().UtcDateTime;
                response.ContentType = "application/json; charset=utf-8";
                response.Headers.ContentDisposition = $"attachment; filename=\"household-{now:yyyy-MM-dd}.json\"";
                await new HouseholdWriter(db, response.Body).WriteAsync(now, cancel);
            }
        );
        api.MapGet("/exchange/household.schema.json", () =>
            TypedResults.Text(HouseholdJson.Schema().ToJsonString(), "application/schema+json")
        );
        api.MapPost("/exchange/household", (HttpRequest request, HouseholdImports imports, CancellationToken cancel) =>
            imports.BeginAsync(request.Body, cancel)
        );
        api.MapGet("/exchange/household/{token}", (string token, HouseholdImports imports) => imports.Of(token));
        api.MapPost("/exchange/household/{token}/store", (string token, HouseholdImports imports, bool settings = false) =>
            imports.Store(token, settings)
        );
        api.MapDelete("/exchange/household/{token}", async (string token, HouseholdImports imports) =>
        {
            await imports.CancelAsync(token);
            return TypedResults.NoContent();
        });
    }
}
