using System.CommandLine;

namespace Daxlin.Cli.Commands;

internal static class ServeCommand
{
    public static Option<int?> Port { get; } = new("--port") { Description = "The port to listen on (7380 unless said).", HelpName = "N" };
    public static Option<string?> Data { get; } = new("--data") { Description = "The folder that holds the data.", HelpName = "DIR" };

    public static Command Make()
    {
        var bind = new Option<string?>("--bind") { Description = "The address to listen on; this machine's own only.", HelpName = "ADDRESS" };
        var withoutSignIn = new Option<bool>("--without-sign-in") { Description = "Let everyone who reaches the port do everything, and only say a name: for one desk." };
        var serve = new Command("serve", "Start the service, on this machine only.") { Port, Data, bind, withoutSignIn };
        serve.SetAction(async (parsed, cancel) =>
        {
            var arguments = new List<string>();
            if (parsed.GetValue(Port) is { } port)
                arguments.AddRange(["--port", $"{port}"]);
            if (parsed.GetValue(Data) is { } data)
                arguments.AddRange(["--data", data]);
            if (parsed.GetValue(bind) is { } address)
                arguments.AddRange(["--bind", address]);
            if (parsed.GetValue(withoutSignIn))
                arguments.Add("--without-sign-in");
            try
            {
                using var service = ServiceProcess.Start(arguments);
                while (await service.ReadLine(cancel) is { } line)
                    Console.Out.WriteLine(line);
                return await service.Ended(cancel);
            }
            catch (OperationCanceledException)
            {
                return ExitCodes.Done;
            }
            catch (RefusedException refused)
            {
                await Console.Error.WriteLineAsync(refused.Message);
                return refused.ExitCode;
            }
        });
        return serve;
    }
}
