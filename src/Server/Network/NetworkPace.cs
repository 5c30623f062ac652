using System.Threading.RateLimiting;

namespace RuddySpring.Server.Network;

/// <summary>How much a single address on the home network may ask: far more than a person at a tablet does, far less than keeps
/// whoever stands at the machine from working.</summary>
public static class NetworkPace
{
    private const int AtOnce = 300;
    private const int EachSecond = 100;
    private static readonly TimeSpan Second = TimeSpan.FromSeconds(1);

    public static void AddNetworkPace(this IServiceCollection services) =>
        services.AddRateLimiter(limiter =>
        {
            limiter.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(context =>
                OwnSeat.Is(context)
                    ? RateLimitPartition.GetNoLimiter("")
                    : RateLimitPartition.GetTokenBucketLimiter($"{context.Connection.RemoteIpAddress}", _ => new()
                        {
                            TokenLimit = AtOnce,
                            TokensPerPeriod = EachSecond,
                            ReplenishmentPeriod = Second,
                            QueueLimit = 0,
                        })
            );
            limiter.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            limiter.OnRejected = (rejected, cancel) =>
                new(
                    TypedResults
                        .Problem("Too many requests at once from this device. Wait a moment.", statusCode: 429)
                        .ExecuteAsync(rejected.HttpContext)
                );
        });
}
