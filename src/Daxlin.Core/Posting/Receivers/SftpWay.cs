namespace Daxlin.Core.Posting.Receivers;

/// <summary>A folder of another machine, by SFTP. Files are written under another name and renamed.</summary>
/// <param name="Password">Names the secret; empty where a key is used.</param>
/// <param name="Key">Names the secret that holds the private key; empty where a password is used.</param>
/// <param name="HostKey">What the machine's key must be, as <c>SHA256:…</c>: whoever answers with another gets nothing.</param>
public sealed record SftpWay(string Host, int Port, string User, string Password, string Key, string HostKey, string Folder) : ReceivingWay
{
    public override string Word => "sftp";

    public override string Place => $"{User}@{Host}:{Port} {Folder}";

    public override string Says => $"Its files are put to {Place}, each whole or not at all.";

    public override IEnumerable<string> Secrets => [Key.Length > 0 ? Key : Password];
}
