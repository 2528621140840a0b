using Daxlin.Core.Posting.Receivers;
using Daxlin.Service.Posting.Deliveries;
using Daxlin.Service.Posting.Deliveries.Ways;
using Daxlin.Service.Storage;
using MimeKit;

namespace Daxlin.Service.Outgoing;

/// <summary>Hands a message over once, or not at all and a person is told.</summary>
/// <remarks>
/// That it is being handed over is stored before it is. One that a death left so may have arrived, and nobody can be asked: it is given up, with the Message-ID to look for, and never sent twice.
/// </remarks>
internal sealed class MailOnce(MailDelivery mail, TimeProvider clock)
{
    /// <summary>What is said of one that a death left in the middle.</summary>
    public const string MayHaveArrived = "The service ended while the message was handed over, so nobody here can tell whether it arrived.";

    /// <param name="state">As it was found.</param>
    /// <param name="message">With the same Message-ID however often it is made.</param>
    /// <param name="change">Stores what it is told.</param>
    public async Task Send(MailState state, MimeMessage message, MailWay line, Func<Action<IMailedOnce>, Task> change, CancellationToken cancel)
    {
        if (state == MailState.Sending)
        {
            await change(row => (row.State, row.Says) = (MailState.GivenUp, $"{MayHaveArrived} Its Message-ID is {message.MessageId}."));
            return;
        }
        await change(row => row.State = MailState.Sending);
        try
        {
            var said = await mail.Send(message, line, cancel);
            await change(row => (row.State, row.Says, row.SentAt) = (MailState.Sent, said, clock.GetUtcNow().UtcDateTime));
        }
        catch (DeliveryFaultException error)
        {
            await change(row => Fail(row, error));
        }
    }

    private void Fail(IMailedOnce row, DeliveryFaultException error)
    {
        row.Attempts++;
        row.Says = error.Message;
        if (!error.IsUnsure && DeliveryPatience.After(row.Attempts) is { } wait)
            (row.State, row.NextAt) = (MailState.Waiting, clock.GetUtcNow().UtcDateTime + wait);
        else
            row.State = MailState.GivenUp;
    }
}
