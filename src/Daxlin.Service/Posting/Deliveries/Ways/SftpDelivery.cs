using System.Net.Sockets;
using System.Text;
using Daxlin.Service.Secrets;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Receivers;
using Daxlin.Service.Storage;
using Renci.SshNet;
using Renci.SshNet.Common;

namespace Daxlin.Service.Posting.Deliveries.Ways;

/// <summary>Puts files into a folder of another machine by SFTP: each is written under a hidden name and renamed.</summary>
internal sealed class SftpDelivery(SecretStore secrets) : IDeliveryWay<SftpWay>
{
    public Task Prepare(Parcel parcel, SftpWay way, CancellationToken cancel) => With(way, nothingReached: true, async client =>
    {
        foreach (var file in parcel.Files)
        {
            if (await client.ExistsAsync(TargetOf(way, file), cancel))
                throw new DeliveryFaultException($"There is a file {file.Name} in {way.Place} already, which is not from this delivery. It was not touched.", nothingReached: true);
            await using var part = await client.OpenAsync(PartOf(parcel, way, file), FileMode.Create, FileAccess.Write, cancel);
            await part.WriteAsync(file.Content, cancel);
            await part.FlushAsync(cancel);
        }
        return "";
    }, cancel);

    public Task<string> HandOver(Parcel parcel, SftpWay way, bool isResumed, CancellationToken cancel) => With(way, nothingReached: false, async client =>
    {
        foreach (var file in parcel.Files)
        {
            // What was made ready and is gone was renamed before the line was cut; the receiver may have taken it since.
            if (isResumed && !await client.ExistsAsync(PartOf(parcel, way, file), cancel))
                continue;
            await client.RenameFileAsync(PartOf(parcel, way, file), TargetOf(way, file), cancel);
        }
        return $"In {way.Place}: {string.Join(", ", parcel.Files.Select(file => file.Name))}.";
    }, cancel);

    public Task<string> Reach(SftpWay way, CancellationToken cancel) => With(way, nothingReached: true, async client =>
        await client.ExistsAsync(way.Folder, cancel) ? $"{way.Host} takes {way.User}, and the folder {way.Folder} is there."
            : throw new DeliveryFaultException($"There is no folder {way.Folder} on {way.Host}.", nothingReached: true), cancel);

    private async Task<string> With(SftpWay way, bool nothingReached, Func<SftpClient, Task<string>> act, CancellationToken cancel)
    {
        var other = "";
        try
        {
            using var login = LoginOf(way);
            using var client = new SftpClient(new Renci.SshNet.ConnectionInfo(way.Host, way.Port, way.User, login));
            client.HostKeyReceived += (_, key) =>
            {
                key.CanTrust = way.HostKey == "SHA256:" + key.FingerPrintSHA256;
                other = key.CanTrust ? "" : "SHA256:" + key.FingerPrintSHA256;
            };
            await client.ConnectAsync(cancel);
            return await act(client);
        }
        catch (Exception error) when (error is SshException or SocketException or IOException)
        {
            throw new DeliveryFaultException(
                error switch
                {
                    _ when other.Length > 0 => $"{way.Host} shows another key than the receiver's document names: {other}. Nothing was sent. If its key was changed, put the new one into the document.",
                    SshAuthenticationException => $"{way.Host} does not take {way.User}'s {(way.Key.Length > 0 ? "key" : "password")}.",
                    SftpPathNotFoundException => $"There is no folder {way.Folder} on {way.Host}.",
                    SftpPermissionDeniedException => $"{way.User} may not write to {way.Folder} on {way.Host}.",
                    _ => $"{way.Host}:{way.Port} could not be reached or broke off: {error.Message.TrimEnd('.')}.",
                },
                nothingReached, inner: error);
        }
    }

    private AuthenticationMethod LoginOf(SftpWay way)
    {
        if (way.Key.Length == 0)
            return new PasswordAuthenticationMethod(way.User, secrets.Needed(way.Password));
        var text = secrets.Needed(way.Key);
        try
        {
            // A key's file ends with a line end, which is cut off where secrets are kept.
            using var key = new MemoryStream(Encoding.UTF8.GetBytes(text + "\n"));
            return new PrivateKeyAuthenticationMethod(way.User, new PrivateKeyFile(key));
        }
        catch (SshException error)
        {
            throw new DeliveryFaultException($"The secret “{way.Key}” is no private key that can be read, or one that is locked with a password.", nothingReached: true, inner: error);
        }
    }

    private static string TargetOf(SftpWay way, PostedFile file) => $"{way.Folder.TrimEnd('/')}/{file.Name}";

    private static string PartOf(Parcel parcel, SftpWay way, PostedFile file) => $"{way.Folder.TrimEnd('/')}/.{file.Name}.{parcel.Key}.part";
}
