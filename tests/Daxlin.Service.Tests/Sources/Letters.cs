using MimeKit;

namespace Daxlin.Service.Tests.Sources;

/// <summary>Messages as vendors' programs and people send them.</summary>
internal static class Letters
{
    public static MimeMessage With(string subject, params IEnumerable<MimeEntity> attached) => From("billing@port-ellery.example", subject, attached);

    public static MimeMessage From(string sender, string subject, params IEnumerable<MimeEntity> attached)
    {
        var message = new MimeMessage { Subject = subject, MessageId = $"{Guid.NewGuid():N}@port-ellery.example" };
        message.From.Add(MailboxAddress.Parse(sender));
        message.To.Add(MailboxAddress.Parse("invoices@kestrel-sound.example"));
        message.Body = new Multipart("mixed") { new MultipartAlternative { new TextPart("plain") { Text = "Please find our invoice." }, new TextPart("html") { Text = "<p>Please find our invoice.</p>" } } };
        foreach (var one in attached)
            ((Multipart)message.Body).Add(one);
        return message;
    }

    public static MimePart File(string name, byte[] bytes, string type = "application/pdf") => new(ContentType.Parse(type))
    {
        Content = new MimeContent(new MemoryStream(bytes)),
        ContentDisposition = new ContentDisposition(ContentDisposition.Attachment) { FileName = name },
        ContentTransferEncoding = ContentEncoding.Base64,
    };

    /// <summary>The picture below a name in the text.</summary>
    public static MimePart Logo() => new("image", "png")
    {
        Content = new MimeContent(new MemoryStream([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1, 2, 3])),
        ContentDisposition = new ContentDisposition(ContentDisposition.Inline) { FileName = "logo.png" },
        ContentId = "logo@port-ellery.example",
        ContentTransferEncoding = ContentEncoding.Base64,
    };

    public static MessagePart Forwarded(MimeMessage message) => new() { Message = message };

    public static byte[] Bytes(MimeMessage message)
    {
        using var stream = new MemoryStream();
        message.WriteTo(stream);
        return stream.ToArray();
    }
}
