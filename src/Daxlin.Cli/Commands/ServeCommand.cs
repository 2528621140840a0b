using System.CommandLine;

namespace Daxlin.Cli.Commands;

internal static class ServeCommand
{
    public static Option<int?> Port { get; } = new("--port") { Description = "The port to listen on (7380 unless said).", HelpName = "N" };
    public static Option<string?> Data { get; } = new("--data") { Description = "The folder that holds the data.", HelpName = "DIR" };

    public static Option<string?> Store { get; } = new("--store") { Description = "A database server of PostgreSQL to store in, which several services may share (docs/OPERATING.md); a file of the data folder unless said here or in DAXLIN_STORE.", HelpName = "CONNECTION" };

    public static Command Make()
    {
        Option<string?>[] more =
        [
            Store,
            new("--node") { Description = "The name of this service among those that share a store; the machine's name unless said.", HelpName = "NAME" },
            new("--bind") { Description = "The address to listen on; beyond this machine only with --host and an encrypted line.", HelpName = "ADDRESS" },
            new("--host") { Description = "The name by which it is reached; it answers to no other but localhost.", HelpName = "NAME" },
            new("--certificate") { Description = "Encrypts the line: a PEM file, with --certificate-key or the key in it, or PKCS #12.", HelpName = "FILE" },
            new("--certificate-key") { Description = "The key of the certificate, in PEM.", HelpName = "FILE" },
            new("--behind-proxy") { Description = "The address of a proxy that encrypts before it; its word on where requests come from counts.", HelpName = "ADDRESS" },
            new("--link-host") { Description = "Hosts that documents may be fetched from which other programs name by a link, parted by commas; from nowhere unless said.", HelpName = "HOSTS" },
            new("--identity-provider") { Description = "A file that tells of a provider by which people may sign in as well (docs/PEOPLE.md).", HelpName = "FILE" },
        ];
        var withoutSignIn = new Option<bool>("--without-sign-in") { Description = "Let everyone who reaches the port do everything, and only say a name: for one desk." };
        var serve = new Command("serve", "Start the service, on this machine only unless said otherwise.") { Port, Data, withoutSignIn };
        foreach (var option in more)
            serve.Options.Add(option);
        serve.SetAction(async (parsed, cancel) =>
        {
            var arguments = new List<string>();
            if (parsed.GetValue(Port) is { } port)
                arguments.AddRange(["--port", $"{port}"]);
            if (parsed.GetValue(Data) is { } data)
                arguments.AddRange(["--data", data]);
            foreach (var option in more)
            {
                if (parsed.GetValue(option) is { } said)
                    arguments.AddRange([option.Name, said]);
            }
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
