using Microsoft.AspNetCore.Server.Kestrel.Core;

namespace RuddySpring.Server.Network;

/// <summary>
/// Marks what came in at this machine's own address (127.0.0.1). Only that listener sets it, so that whatever else ever listens
/// is a stranger until it has signed in.
/// </summary>
public sealed class OwnSeat
{
    private static readonly OwnSeat Only = new();

    private OwnSeat() { }

    /// <summary>Marks everything that a listener takes in.</summary>
    public static void Mark(ListenOptions listener) =>
        listener.Use(next =>
            connection =>
            {
                connection.Features.Set(Only);
                return next(connection);
            }
        );

    /// <summary>Whether a request came in at this machine's own address.</summary>
    public static bool Is(HttpContext context) => context.Features.Get<OwnSeat>() is not null;
}

public static class OwnSeatOnly
{
    /// <summary>What only whoever sits at the machine may do: a lost tablet does not take the data along or open the door
    /// wider.</summary>
    public static TBuilder AtTheMachineOnly<TBuilder>(this TBuilder endpoints)
        where TBuilder : IEndpointConventionBuilder =>
        endpoints.AddEndpointFilter(
            async (context, next) =>
                OwnSeat.Is(context.HttpContext)
                    ? await next(context)
                    : throw new NotAllowedException(
                        "That can only be done on the computer that Ruddy Spring runs on, at 127.0.0.1 or localhost."
                    )
        );
}

/// <summary>Who asks may not do that.</summary>
public sealed class NotAllowedException(string why) : Exception(why);
