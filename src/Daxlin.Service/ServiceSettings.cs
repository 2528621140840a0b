using System.Collections.Immutable;
using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Daxlin.Core.Json;
using Daxlin.Core.Links;
using Daxlin.Service.People.Provider;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service;

/// <summary>How the service was asked to run.</summary>
/// <param name="Address">What it listens on: this machine alone, unless people sign in and the line is encrypted.</param>
/// <param name="Data">Its data folder.</param>
/// <param name="Console">The folder of the built console, or null if it was not built.</param>
/// <param name="EndsWithInput">Says that it stops when its standard input ends, so that it never outlives who started it.</param>
public sealed record ServiceSettings(IPAddress Address, int Port, string Data, string? Console, bool EndsWithInput)
{
    /// <summary>The folder of made-up invoices to learn on, or null if there is none.</summary>
    public string? Samples { get; init; }

    /// <summary>Says that nobody signs in, and whoever reaches the port may do everything; for one desk and for the demo.</summary>
    public bool IsWithoutSignIn { get; init; }

    /// <summary>The names that it answers to beside this machine's own.</summary>
    public ImmutableArray<string> Hosts { get; init; } = [];

    /// <summary>Proxies that stand before it, whose word on where a request came from counts.</summary>
    public ImmutableArray<IPAddress> Proxies { get; init; } = [];

    /// <summary>From which documents may be fetched that other programs name by a link; empty for from nowhere.</summary>
    public LinkHosts LinkHosts { get; init; } = LinkHosts.None;

    /// <summary>A certificate in PEM or PKCS #12; empty for none.</summary>
    public string CertificateFile { get; init; } = "";

    /// <summary>Its key in PEM; empty if it stands in the same file.</summary>
    public string CertificateKeyFile { get; init; } = "";

    /// <summary>By which the line is encrypted; null if it is not, or if a proxy does it.</summary>
    public X509Certificate2? Certificate { get; private init; }

    /// <summary>By whom people may sign in beside names and passwords; null for nobody.</summary>
    public IdentityProvider? Provider { get; init; }

    /// <summary>How a database server is reached that several services share; empty for a file of the data folder.</summary>
    public string Store { get; init; } = "";

    /// <summary>Where the store is named, too: its password then stands in no list of processes.</summary>
    public const string StoreVariable = "DAXLIN_STORE";

    /// <summary>Which of the services it is that share a database server; empty for one that stores in its folder.</summary>
    public string Node { get; init; } = "";

    /// <summary>Where it stores, for who starts it; without any password.</summary>
    public string Storing => Store.Length == 0 ? $"its data in {Path.GetFullPath(Data)}"
        : $"its documents in {Path.GetFullPath(Data)}, as “{Node}”, and {PostgresStore.Named(Store)}";

    public const int UsualPort = 7380;

    /// <summary>Reads <c>--port N --data DIR --bind ADDRESS --host NAME --certificate FILE --certificate-key FILE --behind-proxy ADDRESS --link-host HOSTS --store CONNECTION --node NAME --identity-provider FILE --console DIR --samples DIR --without-sign-in --ends-with-input</c>.</summary>
    /// <exception cref="SettingsException">A setting is unknown or cannot be met; the message says why.</exception>
    public static ServiceSettings Parse(string[] args)
    {
        var settings = new ServiceSettings(
            IPAddress.Loopback, UsualPort,
            Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.Create), "daxlin"),
            null, false)
        { Store = Environment.GetEnvironmentVariable(StoreVariable) ?? "" };
        for (var index = 0; index < args.Length; index++)
        {
            settings = args[index] switch
            {
                "--port" => settings with { Port = PortOf(Next()) },
                "--data" => settings with { Data = Next() },
                "--bind" => settings with { Address = AddressOf(Next()) },
                "--host" => settings with { Hosts = settings.Hosts.Add(Next()) },
                "--behind-proxy" => settings with { Proxies = settings.Proxies.Add(AddressOf(Next())) },
                "--link-host" => settings with { LinkHosts = new([.. settings.LinkHosts.All, .. Next().Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(LinkHostOf)]) },
                "--certificate" => settings with { CertificateFile = Next() },
                "--certificate-key" => settings with { CertificateKeyFile = Next() },
                "--store" => settings with { Store = Next() },
                "--node" => settings with { Node = Next() },
                "--identity-provider" => settings with { Provider = IdentityProvider.Read(Next()) },
                "--console" => settings with { Console = Next() },
                "--samples" => settings with { Samples = Next() },
                "--without-sign-in" => settings with { IsWithoutSignIn = true },
                "--ends-with-input" => settings with { EndsWithInput = true },
                var unknown => throw new SettingsException($"The setting “{unknown}” is unknown."),
            };
            string Next() => ++index < args.Length ? args[index] : throw new SettingsException($"{args[index - 1]} wants a value.");
        }
        return settings.Checked();
    }

    private static int PortOf(string text) =>
        int.TryParse(text, out var port) && port is >= 0 and < 65536 ? port : throw new SettingsException($"“{text}” is no port.");

    private static IPAddress AddressOf(string text) =>
        OnlyOwnPages.IsLoopbackName(text) && !IPAddress.TryParse(text, out _) ? IPAddress.Loopback
        : IPAddress.TryParse(text, out var address) ? address : throw new SettingsException($"“{text}” is no address; one is written as 192.0.2.7, or 0.0.0.0 for all of this machine.");

    private static LinkHost LinkHostOf(string text) =>
        LinkHost.Read(text) ?? throw new SettingsException($"--link-host {text}: a host is wanted, as files.vendor.example, *.vendor.example or 192.0.2.7:8080.");

    /// <summary>Whoever reaches it beyond this machine has to sign in, on a line that nobody listens to.</summary>
    private ServiceSettings Checked()
    {
        if (Store.Length == 0 && Node.Length > 0)
            throw new SettingsException("--node names one of several services that share a database server; name the server with --store, or leave --node out.");
        if (Store.Length > 0)
        {
            PostgresStore.Check(Store);
            var node = Node.Length > 0 ? Node : NameOf(Environment.MachineName);
            if (DocumentName.FaultOf(node) is { } fault)
                throw new SettingsException($"--node {node}: {fault}");
            return (this with { Node = node }).CheckedLine();
        }
        return CheckedLine();
    }

    /// <summary>A machine's name as a name of Daxlin: <c>AP-2.example.org</c> is <c>ap-2-example-org</c>.</summary>
    private static string NameOf(string machine) =>
        string.Join('-', string.Concat(machine.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')).Split('-', StringSplitOptions.RemoveEmptyEntries));

    private ServiceSettings CheckedLine()
    {
        var isBeyond = !IPAddress.IsLoopback(Address);
        if (IsWithoutSignIn && (isBeyond || !Hosts.IsEmpty || !Proxies.IsEmpty))
            throw new SettingsException("Without sign-in Daxlin is for this machine alone: anyone on the network could approve and post invoices. Leave --without-sign-in out, or --bind, --host and --behind-proxy.");
        if (IsWithoutSignIn && Provider is not null)
            throw new SettingsException("Without sign-in nobody comes by an identity provider. Leave --without-sign-in out, or --identity-provider.");
        if (isBeyond && CertificateFile.Length == 0 && Proxies.IsEmpty)
            throw new SettingsException($"Daxlin does not listen on {Address} unencrypted: passwords and invoices could be read on the way. Name a certificate (--certificate), or the proxy that encrypts before it (--behind-proxy).");
        if ((isBeyond || !Proxies.IsEmpty) && Hosts.IsEmpty)
            throw new SettingsException("Say by which name Daxlin is reached (--host ap.example.org): it answers to no other, so that no stranger's site can pass for it.");
        if (CertificateKeyFile.Length > 0 && CertificateFile.Length == 0)
            throw new SettingsException("--certificate-key is of no use without --certificate.");
        return CertificateFile.Length == 0 ? this : this with { Certificate = CertificateOf(CertificateFile, CertificateKeyFile) };
    }

    /// <summary>Reads a certificate in PEM with its key beside it or in the same file, or in PKCS #12.</summary>
    private static X509Certificate2 CertificateOf(string file, string key)
    {
        try
        {
            return file.EndsWith(".pfx", StringComparison.OrdinalIgnoreCase) || file.EndsWith(".p12", StringComparison.OrdinalIgnoreCase)
                ? X509CertificateLoader.LoadPkcs12FromFile(file, null) : X509Certificate2.CreateFromPemFile(file, key.Length > 0 ? key : null);
        }
        catch (Exception error) when (error is CryptographicException or IOException or UnauthorizedAccessException or ArgumentException)
        {
            throw new SettingsException($"The certificate {file} cannot be read{(key.Length > 0 ? $" with the key {key}" : "")}: it is a PEM file with its key in it or beside it (--certificate-key), or PKCS #12 without a password.");
        }
    }
}

/// <summary>A setting that cannot be met; the message is a sentence.</summary>
public sealed class SettingsException(string message) : Exception(message);
