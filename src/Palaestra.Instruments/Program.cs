using System.Net;
using System.Net.Sockets;
using Palaestra.Instruments;

// Stand-ins for an air cuff and a tilt sensor: instruments [port] [pairs]. Whoever connects is told of the devices and gets
// their samples; see docs/instruments.md.
var port = args.Length > 0 ? int.Parse(args[0]) : 5095;
var pairs = args.Length > 1 ? int.Parse(args[1]) : 1;
using var stop = new CancellationTokenSource();
Console.CancelKeyPress += (_, e) =>
{
    e.Cancel = true;
    stop.Cancel();
};
var listener = new TcpListener(IPAddress.Loopback, port);
listener.Start();
Console.WriteLine($"Simulated instruments at 127.0.0.1:{port}: {pairs} cuffs and {pairs} tilt sensors.");
try
{
    while (!stop.IsCancellationRequested)
    {
        var caller = await listener.AcceptTcpClientAsync(stop.Token);
        _ = Task.Run(() => new Broadcast(caller, pairs).Run(stop.Token));
    }
}
catch (OperationCanceledException) { }
