using System.Diagnostics;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>OpenSSH's server, which lets the tests' own user in by a key.</summary>
internal sealed class SftpReceiver : ITestReceiver
{
    private readonly string folder;
    private readonly Process server;
    private readonly string hostKey;
    private readonly string loginKey;

    private SftpReceiver(int port, string folder, Process server, string hostKey, string loginKey) =>
        (Port, this.folder, this.server, this.hostKey, this.loginKey) = (port, folder, server, hostKey, loginKey);

    public int Port { get; }

    public string Inbox => Path.Combine(folder, "in");

    public static async Task<SftpReceiver> Start()
    {
        var (folder, port) = (Directory.CreateTempSubdirectory("daxlin-sftp-").FullName, Programs.FreePort());
        Directory.CreateDirectory(Path.Combine(folder, "in"));
        foreach (var name in new[] { "host", "login" })
            await Programs.Run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", Path.Combine(folder, name));
        File.Copy(Path.Combine(folder, "login.pub"), Path.Combine(folder, "authorized"));
        var rules = Path.Combine(folder, "rules");
        await File.WriteAllTextAsync(rules, $"""
            Port {port}
            ListenAddress 127.0.0.1
            HostKey {folder}/host
            AuthorizedKeysFile {folder}/authorized
            PidFile none
            StrictModes no
            UsePAM no
            PermitRootLogin yes
            Subsystem sftp internal-sftp
            """);
        if (Environment.UserName == "root")
            Directory.CreateDirectory("/run/sshd");
        var server = Process.Start(new ProcessStartInfo("/usr/sbin/sshd", ["-D", "-f", rules]) { RedirectStandardError = true })!;
        await Programs.UntilListening(port);
        var print = (await Programs.Run("ssh-keygen", "-l", "-f", Path.Combine(folder, "host.pub"))).Split(' ')[1];
        return new SftpReceiver(port, folder, server, print, await File.ReadAllTextAsync(Path.Combine(folder, "login")));
    }

    public (JsonObject Way, (string Name, string Value)[] Secrets) Described(int port) => (new()
    {
        ["sftp"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = port, ["user"] = Environment.UserName, ["key"] = "ledger-key", ["hostKey"] = hostKey, ["folder"] = Inbox },
    }, [("ledger-key", loginKey)]);

    /// <remarks>The ledger takes each file as soon as it stands there, so a second of the same name would be a second posting.</remarks>
    public Task<int> TimesOf(JsonNode run)
    {
        var taken = Path.Combine(folder, "taken");
        Directory.CreateDirectory(taken);
        foreach (var file in new DirectoryInfo(Inbox).EnumerateFiles("*.csv").Where(file => file.Name[0] != '.'))
            file.MoveTo(Path.Combine(taken, $"{file.Name} {Guid.NewGuid()}"));
        return Task.FromResult(Directory.GetFiles(taken, $"run-{run["number"]}.csv *").Length);
    }

    public async ValueTask DisposeAsync()
    {
        server.Kill(entireProcessTree: true);
        await server.WaitForExitAsync();
        server.Dispose();
        Directory.Delete(folder, recursive: true);
    }
}
