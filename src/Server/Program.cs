using RuddySpring.Server.Hosting;

return await RuddyServer.RunAsync(args);
