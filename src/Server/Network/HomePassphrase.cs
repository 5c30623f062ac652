using RuddySpring.Core;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Network;

/// <summary>Turns the home network on from the command line, for a machine without a screen of its own.</summary>
public static class HomePassphrase
{
    /// <summary>Reads a passphrase, a line, and turns the network on with it.</summary>
    /// <exception cref="ArgumentException">It may not be one; the message says why.</exception>
    public static void Set(ServerOptions options, TextReader from)
    {
        Console.WriteLine($"Passphrase for the home network ({Secrets.ShortestPassphrase} characters or more):");
        try
        {
            new Access(options, TimeProvider.System, new Troubles()).Open(from.ReadLine() ?? "");
        }
        catch (DoesNotFitException error)
        {
            throw new ArgumentException(error.Sentence);
        }
    }
}
