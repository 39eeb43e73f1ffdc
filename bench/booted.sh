#!/bin/bash
# Boots systemd on a root of its own that lies over this machine's: nothing of what it does is seen outside.
# $1: a folder on a tmpfs. To be started in namespaces of its own (see booted.ts).
set -e
cd "$1"
mkdir -p upper work root
mount --make-rprivate /
mount -t overlay overlay -o lowerdir=/,upperdir=upper,workdir=work root
cd root
mount -t proc proc proc
mount -t sysfs sysfs sys
mount -t tmpfs tmpfs sys/fs/cgroup
mkdir sys/fs/cgroup/systemd
mount -t cgroup -o none,name=systemd cgroup sys/fs/cgroup/systemd
mount -t tmpfs -o mode=755 tmpfs dev
for device in "null 1 3" "zero 1 5" "full 1 7" "random 1 8" "urandom 1 9" "tty 5 0"; do
  read -r name major minor <<<"$device"
  mknod -m 666 "dev/$name" c "$major" "$minor"
done
mkdir dev/pts dev/shm
mount -t devpts -o newinstance,ptmxmode=0666,mode=620 devpts dev/pts
ln -s pts/ptmx dev/ptmx
ln -s /proc/self/fd dev/fd
for n in 0:stdin 1:stdout 2:stderr; do ln -s "/proc/self/fd/${n%%:*}" "dev/${n##*:}"; done
mount -t tmpfs -o mode=755 tmpfs run
mount -t tmpfs -o mode=1777 tmpfs tmp
mkdir -p before
pivot_root . before
umount -l /before
exec env -i container=other PATH=/usr/sbin:/usr/bin:/sbin:/bin /usr/lib/systemd/systemd --system
