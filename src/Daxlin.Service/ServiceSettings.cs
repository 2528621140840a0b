using System.Net;
using Daxlin.Service.Web;

namespace Daxlin.Service;

/// <summary>How the service was asked to run.</summary>
/// <param name="Address">What it listens on; loopback only.</param>
/// <param name="Data">Its data folder.</param>
/// <param name="Console">The folder of the built console, or null if it was not built.</param>
/// <param name="EndsWithInput">Says that it stops when its standard input ends, so that it never outlives who started it.</param>
public sealed record ServiceSettings(IPAddress Address, int Port, string Data, string? Console, bool EndsWithInput)
{
    /// <summary>The folder of made-up invoices to learn on, or null if there is none.</summary>
    public string? Samples { get; init; }

    /// <summary>Says that nobody signs in, and whoever reaches the port may do everything; for one desk and for the demo.</summary>
    public bool IsWithoutSignIn { get; init; }

    public const int UsualPort = 7380;

    /// <summary>Reads <c>--port N --data DIR --bind ADDRESS --console DIR --samples DIR --without-sign-in --ends-with-input</c>.</summary>
    /// <exception cref="SettingsException">A setting is unknown or cannot be met; the message says why.</exception>
    public static ServiceSettings Parse(string[] args)
    {
        var settings = new ServiceSettings(
            IPAddress.Loopback, UsualPort,
            Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.Create), "daxlin"),
            null, false);
        for (var index = 0; index < args.Length; index++)
        {
            settings = args[index] switch
            {
                "--port" => settings with { Port = PortOf(Next()) },
                "--data" => settings with { Data = Next() },
                "--bind" => settings with { Address = AddressOf(Next()) },
                "--console" => settings with { Console = Next() },
                "--samples" => settings with { Samples = Next() },
                "--without-sign-in" => settings with { IsWithoutSignIn = true },
                "--ends-with-input" => settings with { EndsWithInput = true },
                var unknown => throw new SettingsException($"The setting “{unknown}” is unknown."),
            };
            string Next() => ++index < args.Length ? args[index] : throw new SettingsException($"{args[index - 1]} wants a value.");
        }
        return settings;
    }

    private static int PortOf(string text) =>
        int.TryParse(text, out var port) && port is >= 0 and < 65536 ? port : throw new SettingsException($"“{text}” is no port.");

    private static IPAddress AddressOf(string text)
    {
        if (!OnlyThisMachine.IsLoopbackName(text))
        {
            throw new SettingsException(
                $"Daxlin does not listen on {text}: it has no sign-in yet, so anyone on the network could approve and post "
                + "invoices. It listens on this machine only (127.0.0.1).");
        }
        return IPAddress.TryParse(text, out var address) ? address : IPAddress.Loopback;
    }
}

/// <summary>A setting that cannot be met; the message is a sentence.</summary>
public sealed class SettingsException(string message) : Exception(message);
