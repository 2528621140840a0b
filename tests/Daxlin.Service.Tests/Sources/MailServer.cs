using System.Diagnostics;
using System.Globalization;
using Daxlin.Testing;
using MailKit;
using MailKit.Net.Imap;
using MailKit.Security;
using MimeKit;

namespace Daxlin.Service.Tests.Sources;

/// <summary>Dovecot on loopback, in a folder of passing use, with a mailbox for whoever knows the password.</summary>
internal sealed class MailServer : IAsyncDisposable
{
    public const string User = "invoices";
    public const string Password = "guillemot";

    private readonly string folder;
    private readonly Process server;

    private MailServer(int port, string folder, Process server) => (Port, this.folder, this.server) = (port, folder, server);

    public int Port { get; }

    /// <param name="introspection">Where the server asks whether a token holds (RFC 7662); null for one that takes the password alone.</param>
    public static async Task<MailServer> Start(string? introspection = null)
    {
        var (folder, port) = (Directory.CreateTempSubdirectory("daxlin-imap-").FullName, Programs.FreePort());
        // The mail of root is handed to nobody: Debian's user "mail" has it.
        var user = Environment.UserName == "root" ? "mail" : Environment.UserName;
        await Programs.Run("chmod", "711", folder);
        Directory.CreateDirectory($"{folder}/mail");
        if (user == "mail")
            await Programs.Run("chown", "mail:mail", $"{folder}/mail");
        var internals = Environment.UserName == "root" ? "" : $"default_internal_user = {user}\ndefault_login_user = {user}\ndefault_internal_group = {user}\nservice anvil {{\n chroot =\n}}\n";
        await File.WriteAllTextAsync($"{folder}/oauth2", $"""
            introspection_mode = post
            introspection_url = {introspection}
            username_attribute = username
            active_attribute = active
            active_value = true
            """);
        var tokens = introspection is null ? "" : $"auth_mechanisms = plain oauthbearer\npassdb {{\n  driver = oauth2\n  mechanisms = oauthbearer\n  args = {folder}/oauth2\n}}\n";
        await File.WriteAllTextAsync($"{folder}/conf", string.Create(CultureInfo.InvariantCulture, $$"""
            base_dir = {{folder}}/run
            state_dir = {{folder}}/state
            log_path = {{folder}}/log
            listen = 127.0.0.1
            protocols = imap
            ssl = no
            disable_plaintext_auth = no
            first_valid_uid = 1
            first_valid_gid = 1
            mail_location = maildir:{{folder}}/mail/%u
            mail_fsync = never
            mail_max_userip_connections = 100
            {{tokens}}
            passdb {
              driver = static
              args = password={{Password}}
            }
            userdb {
              driver = static
              args = uid={{user}} gid={{user}} home={{folder}}/mail/%u
            }
            service imap-login {
              chroot =
              inet_listener imap {
                port = {{port}}
              }
              inet_listener imaps {
                port = 0
              }
            }
            {{internals}}
            """));
        var server = Process.Start(new ProcessStartInfo("/usr/sbin/dovecot", ["-F", "-c", $"{folder}/conf"]) { RedirectStandardError = true })!;
        await Programs.UntilListening(port);
        return new MailServer(port, folder, server);
    }

    /// <summary>Puts messages into the inbox, as a server does that others hand mail to.</summary>
    public async Task Put(params IEnumerable<MimeMessage> messages)
    {
        using var client = await Client();
        await client.Inbox!.OpenAsync(FolderAccess.ReadWrite);
        foreach (var message in messages)
            await client.Inbox.AppendAsync(message);
        await client.DisconnectAsync(quit: true);
    }

    /// <summary>The subjects in a folder with their flags, in the order in which they came; none for a folder that is not there.</summary>
    public async Task<List<string>> In(string name)
    {
        using var client = await Client();
        try
        {
            var box = await client.GetFolderAsync(name);
            await box.OpenAsync(FolderAccess.ReadOnly);
            return [.. (await box.FetchAsync(0, -1, MessageSummaryItems.Envelope | MessageSummaryItems.Flags)).Select(one => $"{one.Envelope!.Subject} {one.Flags & ~MessageFlags.Recent}")];
        }
        catch (FolderNotFoundException)
        {
            return [];
        }
    }

    private async Task<ImapClient> Client()
    {
        var client = new ImapClient();
        await client.ConnectAsync("127.0.0.1", Port, SecureSocketOptions.None);
        await client.AuthenticateAsync(User, Password);
        return client;
    }

    public async ValueTask DisposeAsync()
    {
        await Programs.Run("kill", server.Id.ToString(CultureInfo.InvariantCulture));
        await server.WaitForExitAsync();
        server.Dispose();
        Directory.Delete(folder, recursive: true);
    }
}
