using RuddySpring.Server.Hosting;

namespace RuddySpring.Measure;

/// <summary>The server as <c>./run</c> starts it, or the one built beside these measures where nothing else is named.</summary>
public static class ServerProgram
{
    /// <summary>Path of its program.</summary>
    public static string Location { get; } =
        Environment.GetEnvironmentVariable("RUDDY_SERVER") is { Length: > 0 } named
            ? named
            : typeof(RuddyServer).Assembly.Location;
}
